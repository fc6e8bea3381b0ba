/** How far plans agree with what is accepted, counted as the shared scorer counts the left hand. */
import { agrees, type Lesson, type Wanted } from './lessons';
import { plannerFor, type Weights } from './rivals';
import type { Placement } from '../../src/core/fingering/left/rules/place';

/** Pairs of right and judged. */
export interface Agreement {
  readonly strings: readonly [number, number];
  readonly fingers: readonly [number, number];
  readonly whole: readonly [number, number];
}

export function agreementOf(lesson: Lesson, weights: Weights): Agreement {
  const { placements } = plannerFor(lesson, weights).plan(new Map());
  const variants = lesson.accepted.map((variant) => agreementWith(variant, placements));
  return variants.reduce((a, b) => (right(b) > right(a) ? b : a));
}

const right = ({ strings, fingers }: Agreement) => strings[0] + fingers[0];

function agreementWith(variant: readonly Wanted[], placed: readonly (Placement | null)[]): Agreement {
  const strings: [number, number] = [0, 0];
  const fingers: [number, number] = [0, 0];
  variant.forEach((one, k) => {
    const place = placed[k]!;
    const stopped = one.string === null ? (place?.fret ?? 1) > 0 : (one.fret ?? 0) > 0;
    if (!stopped) return;
    const onString = one.string === null || place?.string === one.string;
    if (one.string !== null) add(strings, onString);
    if (one.fingers !== null) add(fingers, onString && agrees(one, place));
  });
  const isJudged = strings[1] + fingers[1] > 0;
  const isWhole = variant.every((one, k) => agrees(one, placed[k]!));
  return { strings, fingers, whole: [Number(isJudged && isWhole), Number(isJudged)] };
}

function add(sums: [number, number], isRight: boolean): void {
  sums[0] += Number(isRight);
  sums[1]++;
}

export const sumOf = (some: readonly Agreement[]): Agreement => {
  const sum = (key: keyof Agreement): [number, number] => [
    some.reduce((total, one) => total + one[key][0], 0),
    some.reduce((total, one) => total + one[key][1], 0),
  ];
  return { strings: sum('strings'), fingers: sum('fingers'), whole: sum('whole') };
};
