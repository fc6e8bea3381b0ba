/**
 * Rest or free strokes: where a style wants a rest stroke, and which string it lands on and silences. A finger lands
 * on the next lower-pitched string, the thumb on the next higher-pitched one. Source: handbook, "Rest or free stroke".
 */
import type { FingeringProblem } from '../../problem/problem';
import { STEP_SEMITONES } from '../../problem/strike';
import type { Ring } from '../../../rings/ring';
import type { RightStep } from './walk';

export interface Landing {
  readonly momentIndex: number;
  readonly ticks: number;
  readonly string: number;
}

/** A stroke with another that follows or comes within this time belongs to a line. From memory. */
const LINE_MS = 600;
/** Quicker than this p plays free. From memory. */
const QUICK_THUMB_MS = 160;

/** Strokes that are played as rest strokes, with where they land. `wanted`: by moment, see `restWanted`. */
export function landingsOf(
  problem: FingeringProblem,
  wanted: readonly number[],
  rings: readonly Ring[],
): readonly Landing[] {
  if (wanted.every((string) => string === 0)) return [];
  const byString = ringsByString(rings);
  return wanted.flatMap((string, k) => {
    const { tick } = problem.moments[k]!;
    if (string === 0 || mustRing(problem, byString[string]!, tick)) return [];
    return [{ momentIndex: k, ticks: tick, string }];
  });
}

/**
 * The string on which the stroke of a moment should come to lie, if that may be silenced; 0 for a free stroke.
 * @param before the moment at which the hand played before, `after` at which it plays next
 */
export function restWanted(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  k: number,
  before: number | undefined,
  after: number | undefined,
): number {
  const { group, sharing } = steps[k]!;
  const [stroke] = group.strokes;
  const { restStrokes } = group.manner.style;
  if (group.strokes.length !== 1 || group.effect || restStrokes === 'never' || sharing.pick) return 0;
  const letter = sharing.letters[0]!;
  const string = stroke!.string + (letter === 'p' ? -1 : 1);
  if (string < 1 || string > 6) return 0;
  const inLineWith = (j: number | undefined) =>
    j !== undefined && inLine(problem, steps, k, j, letter === 'p');
  const wanted =
    (restStrokes === 'melody' && stroke!.role === 'melody' && letter !== 'p') ||
    inLineWith(before) ||
    inLineWith(after);
  if (!wanted || (letter === 'p' && gapMs(problem, k, after) <= QUICK_THUMB_MS)) return 0;
  return string;
}

const gapMs = ({ moments }: FingeringProblem, k: number, next: number | undefined): number =>
  next === undefined ? Infinity : moments[next]!.timeMs - moments[k]!.timeMs;

/** Two single strokes of the thumb, or of fingers, that follow each other by step: what leaps is an arpeggio. */
function inLine(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  k: number,
  j: number,
  byThumb: boolean,
): boolean {
  const [a, b] = [steps[k]!, steps[j]!];
  if (b.group.strokes.length !== 1 || (b.sharing.fingers === null) !== byThumb) return false;
  const [one, other] = [a.group.strokes[0]!, b.group.strokes[0]!];
  const apart = Math.abs(problem.moments[j]!.timeMs - problem.moments[k]!.timeMs);
  const semitones = Math.abs(problem.strikes[one.strike]!.midi - problem.strikes[other.strike]!.midi);
  return apart <= LINE_MS && semitones <= STEP_SEMITONES && Math.abs(one.string - other.string) <= 1;
}

/** Written to sound, or part of a broken chord that rings on. */
const mustRing = (problem: FingeringProblem, onString: readonly Ring[], tick: number): boolean => {
  const ring = onString[lastBefore(onString, tick + 1)];
  return (
    ring !== undefined &&
    Math.max(ring.writtenEndTicks, problem.strikes[ring.strike]!.endTicks) > tick &&
    ring.soundsUntilTicks > tick
  );
};

/** Of each string (1 to 6) its rings by onset; one ends where the next begins. */
function ringsByString(rings: readonly Ring[]): readonly (readonly Ring[])[] {
  const byString: Ring[][] = [[], [], [], [], [], [], []];
  for (const ring of rings) byString[ring.string]!.push(ring);
  return byString;
}

/** Index of the last ring that begins before a tick, −1 where none does. */
function lastBefore(rings: readonly Ring[], tick: number): number {
  let [low, high] = [0, rings.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (rings[middle]!.onsetTicks < tick) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** What still rings on a string ends where a rest stroke lands on it. */
export function landed(rings: readonly Ring[], landings: readonly Landing[]): readonly Ring[] {
  if (landings.length === 0) return rings;
  const byString = ringsByString(rings);
  const endOf = new Map<Ring, number>();
  for (const { string, ticks } of landings) {
    const ring = byString[string]![lastBefore(byString[string]!, ticks)];
    if (ring && ticks < ring.soundsUntilTicks && !endOf.has(ring)) endOf.set(ring, ticks);
  }
  return rings.map((ring) => {
    const ticks = endOf.get(ring);
    return ticks === undefined ? ring : { ...ring, soundsUntilTicks: ticks, end: 'landed' as const };
  });
}
