/** Orders of a tremolo, and where the music has one. */
import type { RightFinger } from '../../instrument/rightProfile';
import type { FingeringProblem } from '../problem';

/** Rows: each begins with the thumb. Source: handbook, "Formulas". */
export const TREMOLOS = {
  pami: ['p', 'a', 'm', 'i'],
  pima: ['p', 'i', 'm', 'a'],
  paim: ['p', 'a', 'i', 'm'],
  pmim: ['p', 'm', 'i', 'm'],
  pmi: ['p', 'm', 'i'],
  pi: ['p', 'i'],
  piami: ['p', 'i', 'a', 'm', 'i'],
} as const satisfies Readonly<Record<string, readonly RightFinger[]>>;

export type TremoloId = keyof typeof TREMOLOS;
export const TREMOLO_IDS = Object.keys(TREMOLOS) as TremoloId[];

/** So many times the same pitch must come in a row, each no longer than so many ms. Common practice, from memory. */
const LEAST_REPEATS = 3;
const LONGEST_MS = 220;
/** Fewer than this between two thumbs are no tremolo. */
const LEAST_BETWEEN_THUMBS = 1;

/**
 * By strike: which finger the chosen order gives it, null outside of a tremolo. A group is what is struck from one
 * bass to the next; the fingers of the order are dealt from its end, so that the last before the thumb is right.
 */
export function tremoloFingers(
  problem: FingeringProblem,
  orderAt: (momentIndex: number) => TremoloId | null,
): readonly (RightFinger | null)[] {
  const fingers: (RightFinger | null)[] = problem.strikes.map(() => null);
  for (const run of repeatedPitches(problem)) {
    const id = orderAt(run[0]!.moment);
    if (id === null) continue;
    const [, ...order]: readonly RightFinger[] = TREMOLOS[id];
    for (const group of betweenThumbs(problem, run)) {
      group.forEach(({ strike }, k) => {
        // As many as the order has are dealt in its order; a longer group goes round.
        fingers[strike] = order[k % order.length]!;
      });
    }
  }
  return fingers;
}

interface Repeat {
  readonly moment: number;
  readonly strike: number;
}

/** Runs of one quick pitch in a row, with or without a bass under or between them. */
function repeatedPitches(problem: FingeringProblem): readonly (readonly Repeat[])[] {
  const runs: Repeat[][] = [];
  let run: Repeat[] = [];
  let lastMs = -Infinity;
  const close = () => {
    if (run.length >= LEAST_REPEATS) runs.push(run);
    run = [];
  };
  for (const moment of problem.moments) {
    const top = moment.struck.reduce<number | null>(
      (best, index) =>
        problem.strikes[index]!.role === 'bass' ||
        (best !== null && problem.strikes[best]!.midi >= problem.strikes[index]!.midi)
          ? best
          : index,
      null,
    );
    if (top === null) continue;
    const before = run.at(-1);
    const goesOn =
      before &&
      problem.strikes[before.strike]!.midi === problem.strikes[top]!.midi &&
      moment.timeMs - lastMs <= 2 * LONGEST_MS;
    if (!goesOn) close();
    run.push({ moment: moment.index, strike: top });
    lastMs = moment.timeMs;
  }
  close();
  return runs.filter((one) => meanGapMs(problem, one) <= LONGEST_MS * 1.5);
}

function meanGapMs(problem: FingeringProblem, run: readonly Repeat[]): number {
  const timeOf = (one: Repeat) => problem.moments[one.moment]!.timeMs;
  return (timeOf(run.at(-1)!) - timeOf(run[0]!)) / (run.length - 1);
}

/** Cuts a run at every bass that is struck in it. */
function betweenThumbs(problem: FingeringProblem, run: readonly Repeat[]): readonly (readonly Repeat[])[] {
  const groups: Repeat[][] = [[]];
  let lastMoment = run[0]!.moment;
  for (const one of run) {
    const thumbed = problem.moments
      .slice(lastMoment + 1, one.moment + 1)
      .some(({ struck }) => struck.some((index) => problem.strikes[index]!.role === 'bass'));
    if (thumbed && groups.at(-1)!.length >= LEAST_BETWEEN_THUMBS) groups.push([]);
    groups.at(-1)!.push(one);
    lastMoment = one.moment;
  }
  return groups;
}
