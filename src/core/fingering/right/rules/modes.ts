/**
 * What the fingers think in: stations (each string has its finger), a pair that takes turns, the cycle of a tremolo, a
 * run of the thumb, or freely from stroke to stroke. A mode remembers only what it needs: no mode knows the time, so
 * that a formula is the same at every tempo. Source: handbook 13; the design follows "States for a planner that thinks
 * in figures".
 */
import type { Texture } from '../../../figures/texture';
import type { Pluck } from '../../../score/model';
import type { RightSchool } from './schools';
import type { Stroke, StrokeGroup } from './strokes';
import { CYCLE_IDS, CYCLES, type CycleId, cyclesOf, TURN_IDS, TURNS, type TurnId } from './turns';

/** `keep`: the fingers do nothing and stay in the mode in which they are. */
export type Mode =
  | { readonly kind: 'keep' | 'stations' | 'thumb' | 'free' }
  | { readonly kind: 'turn'; readonly turn: TurnId }
  | { readonly kind: 'cycle'; readonly cycle: CycleId };

/** One object each, numbered, so that equal modes are the same. */
export const KEEP: Mode = { kind: 'keep' };
export const STATIONS: Mode = { kind: 'stations' };
export const THUMB: Mode = { kind: 'thumb' };
export const FREE: Mode = { kind: 'free' };
export const turnMode = Object.fromEntries(
  TURN_IDS.map((turn) => [turn, { kind: 'turn', turn } as Mode]),
) as Readonly<Record<TurnId, Mode>>;
export const cycleMode = Object.fromEntries(
  CYCLE_IDS.map((cycle) => [cycle, { kind: 'cycle', cycle } as Mode]),
) as Readonly<Record<CycleId, Mode>>;

export const MODES: readonly Mode[] = [
  KEEP,
  STATIONS,
  THUMB,
  FREE,
  ...Object.values(turnMode),
  ...Object.values(cycleMode),
];
const NUMBERS = new Map(MODES.map((mode, number) => [mode, number]));
export const modeNumber = (mode: Mode): number => NUMBERS.get(mode)!;

/** Where a run of the thumb is thinkable: one line alone, or what is not clear. */
const RUNS_OF_P: ReadonlySet<Texture> = new Set<Texture>(['line', 'slowMelody', 'brokenChord', 'mixed']);

/**
 * The modes in which a group can be played with these letters; at least one. Which of them the texture is at home in is
 * priced, not decided here.
 */
export function modesFor(group: StrokeGroup, letters: readonly Pluck[]): readonly Mode[] {
  const fingers = letters.flatMap((letter, k) => (letter === 'p' ? [] : [k]));
  const { texture, strokes, manner } = group;
  if (manner.school.plectrum || group.effect !== null) return [fingers.length > 1 ? STATIONS : KEEP];
  if (fingers.length === 0) {
    const runs = RUNS_OF_P.has(texture) && strokes.some(({ hand }) => hand === 'either');
    if (!runs) return [KEEP];
    return texture === 'brokenChord' ? [KEEP, THUMB] : [THUMB];
  }
  if (fingers.length > 1) return [STATIONS];
  const k = fingers[0]!;
  const own = singleModes(texture, manner.school, strokes[k]!, letters[k]!);
  return own.length > 0 ? own : [STATIONS];
}

function singleModes(texture: Texture, school: RightSchool, stroke: Stroke, letter: Pluck): readonly Mode[] {
  const turns = (ids: readonly TurnId[]) =>
    ids.filter((id) => (TURNS[id] as readonly Pluck[]).includes(letter)).map((id) => turnMode[id]);
  if (school.everywhere) return turns([school.everywhere]);
  switch (texture) {
    case 'tremolo':
      return stroke.phase ? cyclesWith(stroke.phase, letter) : [STATIONS];
    case 'line':
      return school.line === 'stations'
        ? [STATIONS]
        : school.line === 'free'
          ? [FREE]
          : turns(school.line === 'order' ? ['ami'] : ['im', 'ma', 'ia']);
    case 'slowMelody':
      return school.line === 'stations' ? [STATIONS] : school.line === 'order' ? turns(['ami']) : [FREE];
    case 'strum':
      return [FREE];
    case 'mixed':
      return school.line === 'order' ? turns(['ami']) : [STATIONS, FREE];
    default:
      return [STATIONS];
  }
}

const cyclesWith = ({ at, of }: NonNullable<Stroke['phase']>, letter: Pluck): readonly Mode[] =>
  cyclesOf(of)
    .filter((id) => {
      const { letters } = CYCLES[id];
      return letters[at % letters.length] === letter;
    })
    .map((id) => cycleMode[id]);
