/** How far plans of both hands agree with what is accepted, counted as the shared scorer counts. */
import { bestOfBoth, type Fingering, handsFor } from './hands';
import { agrees, agreesLetter, type Lesson, lettersMissed, placesMissed, type Wanted } from './lessons';
import type { Weights } from './weights';

type Pair = readonly [right: number, judged: number];

export interface Agreement {
  readonly strings: Pair;
  readonly fingers: Pair;
  readonly letters: Pair;
  readonly left: Pair;
  readonly right: Pair;
}

export function agreementOf(lesson: Lesson, weights: Weights): Agreement {
  const plan = bestOfBoth(handsFor(lesson, weights));
  const variants = lesson.accepted.map((variant) => agreementWith(variant, plan));
  return variants.reduce((a, b) => (rightIn(b) > rightIn(a) ? b : a));
}

const rightIn = ({ strings, fingers, letters }: Agreement) => strings[0] + fingers[0] + letters[0];

function agreementWith(variant: readonly Wanted[], { placements, plucks }: Fingering): Agreement {
  const strings: [number, number] = [0, 0];
  const fingers: [number, number] = [0, 0];
  const letters: [number, number] = [0, 0];
  variant.forEach((one, k) => {
    if (one.plucks !== null) add(letters, agreesLetter(one, plucks[k]!));
    const place = placements[k]!;
    const stopped = one.string === null ? (place?.fret ?? 1) > 0 : (one.fret ?? 0) > 0;
    if (!stopped) return;
    const onString = one.string === null || place?.string === one.string;
    if (one.string !== null) add(strings, onString);
    if (one.fingers !== null) add(fingers, onString && agrees(one, place));
  });
  const wholeIf = (isWhole: boolean, judged: number): Pair => (judged > 0 ? [Number(isWhole), 1] : [0, 0]);
  return {
    strings,
    fingers,
    letters,
    left: wholeIf(placesMissed(variant, placements) === 0, strings[1] + fingers[1]),
    right: wholeIf(lettersMissed(variant, plucks) === 0, letters[1]),
  };
}

function add(sums: [number, number], isRight: boolean): void {
  sums[0] += Number(isRight);
  sums[1]++;
}

const KEYS = ['strings', 'fingers', 'letters', 'left', 'right'] as const;

export const sumOf = (some: readonly Agreement[]): Agreement =>
  Object.fromEntries(
    KEYS.map((key) => {
      const sum = (of: 0 | 1) => some.reduce((total, one) => total + one[key][of], 0);
      return [key, [sum(0), sum(1)]];
    }),
  ) as unknown as Agreement;
