/** `./oculon print`: files in, the student's copies out as PDF. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { composeCopy } from '../core/copy/compose';
import { copySource } from '../core/copy/copySource';
import { imprintOf } from '../core/copy/fileName';
import { PAPER_LETTERING } from '../core/copy/lettering';
import { type CopyOptions, copyOptionsSchema, INCLUDABLE, PAPER_IDS, STAFF_SIZES } from '../core/copy/paper';
import { NO_REGISTERS } from '../core/fingering/edition/registers';
import { DENSITIES } from '../core/marks/style';
import { NO_CORRECTIONS } from '../core/score/corrections';
import { pdfOf } from '../print/pdf';
import { engraveCopy } from '../workers/prepareCopy';
import { rolesOfScore } from '../workers/roles';
import { complain, forEachFile, InputProblem, openScore } from './files';
import { plannerFor, type PlayerOptions, readPlayer } from './playerOptions';

interface Options {
  readonly files: readonly string[];
  readonly out: string;
  readonly player: PlayerOptions;
  readonly copy: CopyOptions;
  readonly counted: string;
}

/** Returns the exit code. */
export async function printCommand(args: readonly string[]): Promise<number> {
  let options: Options;
  try {
    options = readOptions(args);
    mkdirSync(options.out, { recursive: true });
  } catch (error) {
    return complain(error instanceof Error ? error.message : String(error));
  }
  return forEachFile(options.files, (file) => printFile(file, options));
}

function readOptions(args: readonly string[]): Options {
  const { values, positionals } = parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      out: { type: 'string', default: '.' },
      density: { type: 'string', default: 'teaching' },
      paper: { type: 'string', default: 'a4' },
      landscape: { type: 'boolean', default: false },
      staff: { type: 'string', default: 'normal' },
      alike: { type: 'boolean', default: false },
      include: { type: 'string', default: 'legend' },
      count: { type: 'string', default: '' },
      school: { type: 'string', default: 'balanced' },
      'right-school': { type: 'string', default: 'balanced' },
      profile: { type: 'string' },
    },
  });
  if (positionals.length === 0) throw new InputProblem('Name at least one file to print.');
  return {
    files: positionals,
    out: values.out,
    counted: values.count,
    player: readPlayer(values.profile, values.school, values['right-school']),
    copy: copyOptionsSchema.parse({
      density: oneOf('--density', DENSITIES, values.density),
      paper: oneOf('--paper', PAPER_IDS, values.paper),
      staff: oneOf('--staff', Object.keys(STAFF_SIZES), values.staff),
      orientation: values.landscape ? 'landscape' : 'portrait',
      looks: values.alike ? 'alike' : 'told',
      whose: 'all',
      include: values.include
        .split(',')
        .filter(Boolean)
        .map((what) => oneOf('--include', INCLUDABLE, what.trim())),
    }),
  };
}

/** @throws InputProblem that names what there is */
function oneOf(option: string, known: readonly string[], value: string): string {
  if (!known.includes(value))
    throw new InputProblem(`${option}: there is no “${value}”; there are: ${known.join(', ')}.`);
  return value;
}

async function printFile(path: string, { out, player, copy, counted }: Options): Promise<number> {
  const { source, document } = await openScore(path);
  const { score } = document;
  const planner = plannerFor(score, player);
  const ink = new Map();
  const plan = planner.plan(ink);
  const stem = basename(path).replace(/\.[^.]*$/, '');
  const date = new Date();
  const engraved = await engraveCopy({ text: source.text, document, corrections: NO_CORRECTIONS }, copy);
  const fingered = {
    score,
    plan,
    roles: new Map(rolesOfScore(score)),
    registers: NO_REGISTERS,
    board: player.fretboard,
    script: copy.include.includes('hotSpots') ? planner.script(ink) : [],
  };
  const title = score.title || stem;
  const pages = composeCopy(engraved, copySource(fingered, copy, { title, imprint: imprintOf(date, null) }), {
    options: copy,
    density: copy.density ?? 'teaching',
    countedBars: counted,
    lettering: PAPER_LETTERING,
  });
  writeFileSync(join(out, `${stem}.pdf`), await pdfOf(pages, { title, date }));
  return 0;
}
