/**
 * Rest or free strokes: where a style wants a rest stroke, and which string it lands on and silences. A finger lands
 * on the next lower-pitched string, the thumb on the next higher-pitched one. Source: handbook, "Rest or free stroke".
 */
import type { FingeringProblem } from '../problem';
import type { Ring } from '../rings/ring';
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

/** Strokes that are played as rest strokes, with where they land. */
export function landingsOf(
  problem: FingeringProblem,
  steps: readonly RightStep[],
  rings: readonly Ring[],
): readonly Landing[] {
  const played = steps.flatMap((step, k) => (step.group.strokes.length > 0 ? [k] : []));
  return played.flatMap((k, n) => {
    const { group, sharing } = steps[k]!;
    const [stroke] = group.strokes;
    const { restStrokes } = group.manner.style;
    if (group.strokes.length !== 1 || group.effect || restStrokes === 'never' || sharing.pick) return [];
    const neighbours = [played[n - 1], played[n + 1]].filter((j) => j !== undefined);
    const letter = sharing.letters[0]!;
    const string = stroke!.string + (letter === 'p' ? -1 : 1);
    if (string < 1 || string > 6) return [];
    const wanted =
      letter === 'p'
        ? stroke!.role === 'bass' && gapMs(problem, k, played[n + 1]) > QUICK_THUMB_MS
        : (restStrokes === 'melody' && stroke!.role === 'melody') ||
          neighbours.some((j) => inLine(problem, steps, k, j));
    const { tick } = problem.moments[k]!;
    return wanted && !mustRing(rings, string, tick) && !playedNext(steps, played[n + 1], string, letter)
      ? [{ momentIndex: k, ticks: tick, string }]
      : [];
  });
}

const gapMs = ({ moments }: FingeringProblem, k: number, next: number | undefined): number =>
  next === undefined ? Infinity : moments[next]!.timeMs - moments[k]!.timeMs;

function inLine(problem: FingeringProblem, steps: readonly RightStep[], k: number, j: number): boolean {
  const [a, b] = [steps[k]!, steps[j]!];
  const single = b.group.strokes.length === 1 && b.sharing.fingers !== null;
  const apart = Math.abs(problem.moments[j]!.timeMs - problem.moments[k]!.timeMs);
  return single && apart <= LINE_MS && Math.abs(a.group.strokes[0]!.string - b.group.strokes[0]!.string) <= 1;
}

const mustRing = (rings: readonly Ring[], string: number, tick: number) =>
  rings.some(
    (ring) =>
      ring.string === string &&
      ring.onsetTicks <= tick &&
      ring.writtenEndTicks > tick &&
      ring.soundsUntilTicks > tick,
  );

/** An arpeggio that goes on to the landing string by another finger would find it in its way. */
function playedNext(
  steps: readonly RightStep[],
  next: number | undefined,
  string: number,
  letter: string,
): boolean {
  if (next === undefined) return false;
  const { group, sharing } = steps[next]!;
  return group.strokes.some(
    (stroke, slot) => stroke.string === string && sharing.letters[slot] === 'p' && letter !== 'p',
  );
}

/** What still rings on a string ends where a rest stroke lands on it. */
export function landed(rings: readonly Ring[], landings: readonly Landing[]): readonly Ring[] {
  return rings.map((ring) => {
    const landing = landings.find(
      ({ string, ticks }) =>
        string === ring.string && ticks > ring.onsetTicks && ticks < ring.soundsUntilTicks,
    );
    return landing ? { ...ring, soundsUntilTicks: landing.ticks, end: 'landed' as const } : ring;
  });
}
