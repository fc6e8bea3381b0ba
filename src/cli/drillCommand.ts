/** `./oculon drill`: a drill as fingered score and result, like a piece's. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import type { Chosen, DrillKind } from '../core/drills/drill';
import { drillScore } from '../core/drills/drillScore';
import { DRILL_KINDS, maybeDrillKind } from '../core/drills/kinds/all';
import { inkOf } from '../core/fingering/edition/registers';
import { fingeredText } from '../core/formats/musicxml/exportFingered';
import { complain, InputProblem } from './files';
import { resultOf } from './planResult';
import { plannerFor, readPlayer } from './playerOptions';

export const DRILL_USAGE = `./oculon drill KIND [--option value …] [--out DIR]
  Writes DIR/KIND.fingered.musicxml and DIR/KIND.result.json. Kinds and their options:
${DRILL_KINDS.map(usageOf).join('\n')}`;

function usageOf({ id, parameters }: DrillKind): string {
  const rows = parameters.map(({ id, values }) => `    --${id} ${values.map(([value]) => value).join('|')}`);
  return [`  ${id}`, ...rows].join('\n');
}

/** Returns the exit code. */
export async function drillCommand(args: readonly string[]): Promise<number> {
  try {
    if (args[0] === '--help') {
      console.log(DRILL_USAGE);
      return 0;
    }
    const kind = kindOrThrow(args[0]);
    const { out, profile, chosen } = readOptions(kind, args.slice(1));
    mkdirSync(out, { recursive: true });
    const { document, text, registers } = drillScore(kind, chosen);
    const started = performance.now();
    const planner = plannerFor(document.score, readPlayer(profile, 'balanced', 'balanced'));
    const ink = inkOf(registers);
    const plan = planner.plan(ink);
    const ms = performance.now() - started;
    const result = resultOf(document.score, planner.problem, {
      plan,
      script: planner.script(ink),
      alternatives: [],
      ms,
    });
    const source = { text, encoding: 'utf-8' as const, byteOrderMark: false, archive: null };
    writeFileSync(join(out, `${kind.id}.result.json`), `${JSON.stringify(result, null, 1)}\n`);
    writeFileSync(join(out, `${kind.id}.fingered.musicxml`), fingeredText(source, document, plan));
    return 0;
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    return complain(error.message);
  }
}

function kindOrThrow(id: string | undefined): DrillKind {
  const kind = maybeDrillKind(id ?? '');
  const known = DRILL_KINDS.map((one) => one.id).join(', ');
  if (!kind)
    throw new InputProblem(`${id ? `There is no drill “${id}”` : 'Name a drill'}; there are: ${known}.`);
  return kind;
}

/** @throws InputProblem that names what the drill has */
function readOptions({ id, parameters }: DrillKind, args: readonly string[]) {
  const own = Object.fromEntries(parameters.map((one) => [one.id, { type: 'string' as const }]));
  const { values } = parseArgs({
    args: [...args],
    options: { ...own, out: { type: 'string', default: '.' }, profile: { type: 'string' } },
  });
  const given = values as Readonly<Record<string, string | undefined>>;
  const chosen: Record<string, string> = {};
  for (const { id: name, values: known } of parameters) {
    const value = given[name];
    if (value === undefined) continue;
    if (!known.some(([one]) => one === value))
      throw new InputProblem(
        `--${name}: ${id} has no “${value}”; there are: ${known.map(([one]) => one).join(', ')}.`,
      );
    chosen[name] = value;
  }
  return { out: given['out'] ?? '.', profile: given['profile'], chosen: chosen as Chosen };
}
