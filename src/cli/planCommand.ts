/** `./oculon plan`: files in, results and fingered scores out. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { fingeredText } from '../core/formats/musicxml/exportFingered';
import { complain, forEachFile, InputProblem, openScore } from './files';
import { plannerFor, type PlayerOptions, readPlayer } from './playerOptions';
import { resultOf } from './planResult';

interface Options {
  readonly files: readonly string[];
  readonly out: string;
  readonly player: PlayerOptions;
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
  return forEachFile(options.files, (file) => planFile(file, options));
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
  const takes = Number(values.takes);
  if (!Number.isInteger(takes) || takes < 0 || takes > 20) {
    throw new InputProblem(`--takes: “${values.takes}” is not a whole number from 0 to 20.`);
  }
  const player = readPlayer(values.profile, values.school, values['right-school']);
  return { files: positionals, out: values.out, player, takes };
}

async function planFile(path: string, options: Options): Promise<number> {
  const { source, document } = await openScore(path);
  const started = performance.now();
  const planner = plannerFor(document.score, options.player);
  const plan = planner.plan(new Map());
  const ms = performance.now() - started;
  const alternatives = options.takes > 0 ? planner.alternatives(options.takes) : [];

  const stem = join(options.out, basename(path).replace(/\.[^.]*$/, ''));
  const script = planner.script(new Map());
  const result = resultOf(document.score, planner.problem, { plan, script, alternatives, ms });
  writeFileSync(`${stem}.result.json`, `${JSON.stringify(result, null, 1)}\n`);
  writeFileSync(`${stem}.fingered.musicxml`, fingeredText(source, document, plan));
  return 0;
}
