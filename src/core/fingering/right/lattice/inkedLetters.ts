/** The letters that are inked, and what they leave of the right hand's groups. */
import type { Pluck } from '../../../score/model';
import type { Ink } from '../../problem/ink';
import type { Mask } from '../../solver/lattice';
import type { FingeringProblem } from '../../problem/problem';
import type { StrokeLayer } from './strokeChain';
import { liftedGroup, sharingsOf, type StrokeGroup, withStrokes } from '../rules/strokes';

export interface InkedLetters {
  readonly of: (strike: number) => Pluck | null;
  /** A group without the strokes whose letters contradict each other. */
  readonly adapt: (group: StrokeGroup) => StrokeGroup;
  /** By moment: equal where the same letters are inked; empty where none is. */
  readonly keyOf: (k: number) => string;
}

/** Read once for a question: it is asked about every moment again and again. */
export function inkedLetters(problem: FingeringProblem, ink: Ink): InkedLetters {
  const of = (strike: number) => inkedPluck(problem, ink, strike);
  if (![...ink.values()].some(({ pluck }) => pluck !== null))
    return { of, adapt: (group) => group, keyOf: () => '' };
  const keys = problem.moments.map(({ struck }) => {
    const letters = struck.map(of);
    return letters.every((letter) => letter === null) ? '' : letters.join();
  });
  return { of, adapt: (group) => withoutConflict(group, of), keyOf: (k) => keys[k]! };
}

type Inked = InkedLetters['of'];

function inkedPluck(problem: FingeringProblem, ink: Ink, strike: number): Pluck | null {
  const uid = problem.strikes[strike]!.uids.find((one) => ink.get(one)?.pluck);
  return uid === undefined ? null : ink.get(uid)!.pluck;
}

const lettersAgree = (group: StrokeGroup, letters: readonly Pluck[], inked: Inked) =>
  group.strokes.every((stroke, k) => [null, letters[k]].includes(inked(stroke.strike)));

/** `groups`: the variants of the layer. */
export function maskOf(layer: StrokeLayer, groups: readonly StrokeGroup[], inked: Inked): Mask {
  const free = groups.every((group) => group.strokes.every((stroke) => inked(stroke.strike) === null));
  if (free) return null;
  return Uint8Array.from(layer.shared.states, ({ variant, played }) =>
    lettersAgree(groups[variant]!, played.letters, inked) ? 1 : 0,
  );
}

/** Leaves out the fewest strokes so that the inked letters of the rest can be played together. */
function withoutConflict(asked: StrokeGroup, inked: Inked): StrokeGroup {
  const marked = asked.strokes.some((stroke) => inked(stroke.strike) !== null);
  if (!marked) return asked;
  const group = liftedGroup(asked);
  const count = group.strokes.length;
  const subsets = Array.from({ length: 1 << count }, (_, subset) => subset);
  const size = (subset: number) => subset.toString(2).replace(/0/g, '').length;
  for (const subset of subsets.sort((a, b) => size(a) - size(b) || a - b)) {
    const rest =
      subset === 0
        ? group
        : withStrokes(
            group,
            group.strokes.filter((_, bit) => !(subset & (1 << bit))),
          );
    if (sharingsOf(rest).some((letters) => lettersAgree(rest, letters, inked))) return rest;
  }
  return withStrokes(group, []);
}
