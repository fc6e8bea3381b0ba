/** `./oculon drill`: a drill as fingered score and result, like a piece's; cut from a piece, if one is named. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { type Chosen, type DrillKind, HAND, isChoice, parametersOf } from '../core/drills/drill';
import { drillScore } from '../core/drills/drillScore';
import { maybeTooMuch } from '../core/drills/fits';
import { DRILL_KINDS, maybeDrillKind } from '../core/drills/kinds/all';
import { type Passage, passageOf } from '../core/drills/passage/passage';
import { PIECE_KIND_IDS, pieceKindsOf } from '../core/drills/passage/pieceKinds';
import { inkOf } from '../core/fingering/edition/registers';
import { fingeredText } from '../core/formats/musicxml/exportFingered';
import { complain, InputProblem, openScore } from './files';
import { resultOf } from './planResult';
import { plannerFor as plannerForPlayer, readPlayer } from './playerOptions';
import { plannerFor } from '../workers/preparePlan';

export const DRILL_USAGE = `./oculon drill KIND [--option value …] [--out DIR]
./oculon drill piece-KIND FILE [--from N] [--to N] [--option value …] [--out DIR]
  Writes DIR/KIND.fingered.musicxml and DIR/KIND.result.json. Kinds and their options, each with --${HAND.id} ${HAND.values.map(([value]) => value).join('|')}:
${DRILL_KINDS.map(usageOf).join('\n')}
  Cut from a piece, from its bar N to its bar N (counted from 1; the whole without them):
  ${PIECE_KIND_IDS.join(', ')}`;

function usageOf({ id, parameters }: DrillKind): string {
  const rows = parameters.map(({ id, values, typed }) => {
    const listed = values.map(([value]) => (/\s/.test(value) ? `"${value}"` : value)).join('|');
    return `    --${id} ${listed}${typed ? ` or ${typed.hint}` : ''}`;
  });
  return [`  ${id}`, ...rows].join('\n');
}

/** Returns the exit code. */
export async function drillCommand(args: readonly string[]): Promise<number> {
  try {
    if (args[0] === '--help') {
      console.log(DRILL_USAGE);
      return 0;
    }
    const [id, ...rest] = args;
    const kind = PIECE_KIND_IDS.includes(id ?? '') ? await pieceKind(id!, rest) : kindOrThrow(id);
    const { out, profile, chosen } = readOptions(kind, rest);
    mkdirSync(out, { recursive: true });
    const drill = drillScore(kind, chosen);
    const tooMuch = maybeTooMuch(drill);
    if (tooMuch) console.error(`Not for this hand. ${tooMuch}`);
    const { document, text, registers } = drill;
    const started = performance.now();
    const planner = profile
      ? plannerForPlayer(document.score, readPlayer(profile, 'balanced', 'balanced'))
      : plannerFor(document.score, registers);
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
  const known = [...DRILL_KINDS.map((one) => one.id), ...PIECE_KIND_IDS].join(', ');
  if (!kind)
    throw new InputProblem(`${id ? `There is no drill “${id}”` : 'Name a drill'}; there are: ${known}.`);
  return kind;
}

/** @throws InputProblem when the piece has no such bars, or none that a hand can play */
async function pieceKind(id: string, args: readonly string[]): Promise<DrillKind> {
  const [file, ...options] = args;
  if (!file || file.startsWith('--'))
    throw new InputProblem(`Name the piece that ${id} is cut from, before the options.`);
  const { values } = parseArgs({
    args: options,
    allowPositionals: true,
    strict: false,
    options: { from: { type: 'string' }, to: { type: 'string' }, profile: { type: 'string' } },
  });
  const { document } = await openScore(file);
  const { score } = document;
  const profile = typeof values.profile === 'string' ? values.profile : undefined;
  const plan = plannerForPlayer(score, readPlayer(profile, 'balanced', 'balanced')).plan(new Map());
  const bars = score.measures.length;
  const [first, last] = [barOf(values.from, 1, bars), barOf(values.to, bars, bars)];
  if (last < first) throw new InputProblem(`--to ${last} lies before --from ${first}.`);
  const passage: Passage = passageOf(score, plan, first - 1, last - 1);
  const kind = pieceKindsOf(passage).find((one) => one.id === id);
  if (!kind) throw new InputProblem(`Bars ${first} to ${last} have no note that a hand can play.`);
  return kind;
}

function barOf(text: unknown, usual: number, bars: number): number {
  if (text === undefined) return usual;
  const bar = Number(text);
  if (!Number.isInteger(bar) || bar < 1 || bar > bars)
    throw new InputProblem(`“${String(text)}” is no bar of the piece, which has ${bars}.`);
  return bar;
}

/** @throws InputProblem that names what the drill has */
function readOptions(kind: DrillKind, args: readonly string[]) {
  const own = Object.fromEntries(parametersOf(kind).map((one) => [one.id, { type: 'string' as const }]));
  const { values } = parseArgs({
    args: [...args],
    allowPositionals: PIECE_KIND_IDS.includes(kind.id),
    options: {
      ...own,
      from: { type: 'string' },
      to: { type: 'string' },
      out: { type: 'string', default: '.' },
      profile: { type: 'string' },
    },
  });
  const given = values as Readonly<Record<string, string | undefined>>;
  const chosen: Record<string, string> = {};
  for (const parameter of parametersOf(kind)) {
    const value = given[parameter.id];
    if (value === undefined) continue;
    if (!isChoice(parameter, value))
      throw new InputProblem(
        `--${parameter.id}: ${kind.id} has no “${value}”; there are: ${parameter.values.map(([one]) => one).join(', ')}${parameter.typed ? `, or ${parameter.typed.hint}` : ''}.`,
      );
    chosen[parameter.id] = value;
  }
  return { out: given['out'] ?? '.', profile: given['profile'], chosen: chosen as Chosen };
}
