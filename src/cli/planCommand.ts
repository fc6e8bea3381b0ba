/** `./oculon plan`: files in, results and fingered scores out. */
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { Planner } from '../core/fingering/planner';
import { fingeredText } from '../core/formats/musicxml/exportFingered';
import { readScore } from '../core/formats/musicxml/readScore';
import { CONCERT_FRETBOARD } from '../core/instrument/fretboard';
import { ADULT_MEDIUM, type HandProfile, handProfileSchema } from '../core/instrument/handProfile';
import { importErrorText } from '../core/messages/en';
import { READABLE_FILE, readSource } from '../foreign/readSource';
import { resultOf } from './planResult';

/** A problem that belongs to one line on standard error and exit code 2. */
class InputProblem extends Error {}

interface Options {
  readonly files: readonly string[];
  readonly out: string;
  readonly hand: HandProfile;
  readonly takes: number;
}

/** Returns the exit code. */
export async function planCommand(args: readonly string[]): Promise<number> {
  let options: Options;
  try {
    options = readOptions(args);
    mkdirSync(options.out, { recursive: true });
  } catch (error) {
    return complain(error instanceof Error ? error.message : String(error));
  }
  let code = 0;
  for (const file of options.files) {
    try {
      await planFile(file, options);
    } catch (error) {
      if (!(error instanceof InputProblem)) throw error;
      code = complain(`${file}: ${error.message}`);
    }
  }
  return code;
}

function complain(line: string): number {
  console.error(line.replace(/\s+/g, ' '));
  return 2;
}

function readOptions(args: readonly string[]): Options {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      out: { type: 'string', default: '.' },
      school: { type: 'string', default: 'balanced' },
      'right-school': { type: 'string', default: 'balanced' },
      profile: { type: 'string' },
      takes: { type: 'string', default: '0' },
    },
  });
  if (positionals.length === 0) throw new InputProblem('Name at least one file to plan.');
  for (const [option, id] of [
    ['--school', values.school],
    ['--right-school', values['right-school']],
  ] as const) {
    if (id !== 'balanced')
      throw new InputProblem(`${option}: there is no school “${id}”; there is: balanced.`);
  }
  const takes = Number(values.takes);
  if (!Number.isInteger(takes) || takes < 0 || takes > 20) {
    throw new InputProblem(`--takes: “${values.takes}” is not a whole number from 0 to 20.`);
  }
  return { files: positionals, out: values.out, hand: readProfile(values.profile), takes };
}

function readProfile(path: string | undefined): HandProfile {
  if (path === undefined) return ADULT_MEDIUM;
  const json = JSON.parse(readOrComplain(path, '--profile').toString('utf8')) as unknown;
  const parsed = handProfileSchema.partial().safeParse(json);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new InputProblem(`--profile ${path}: ${issue.path.join('.') || 'the file'}: ${issue.message}.`);
  }
  return { ...ADULT_MEDIUM, ...(parsed.data as Partial<HandProfile>) };
}

function readOrComplain(path: string, what = path): Buffer {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new InputProblem(
      `${what}: the file cannot be read (${(error as NodeJS.ErrnoException).code ?? 'unknown reason'}).`,
    );
  }
}

async function planFile(path: string, options: Options): Promise<void> {
  const name = basename(path);
  if (!READABLE_FILE.test(name)) throw new InputProblem(importErrorText({ code: 'unknownKind', name }));
  const read = await readSource(readOrComplain(path, 'input'), name);
  if (!read.ok) throw new InputProblem(importErrorText(read.error));
  const { kind, source } = read.value;
  const document = readScore(source.text, { convertedFrom: kind === 'musicxml' ? null : kind });
  if (!document.ok) throw new InputProblem(importErrorText(document.error));

  const started = performance.now();
  const planner = new Planner(document.value.score, CONCERT_FRETBOARD, options.hand);
  const plan = planner.plan(new Map());
  const ms = performance.now() - started;
  const alternatives = options.takes > 0 ? planner.alternatives(options.takes) : [];

  const stem = join(options.out, name.replace(/\.[^.]*$/, ''));
  const result = resultOf(document.value.score, planner.problem, plan, alternatives, ms);
  writeFileSync(`${stem}.result.json`, `${JSON.stringify(result, null, 1)}\n`);
  writeFileSync(`${stem}.fingered.musicxml`, fingeredText(source, document.value, plan));
}
