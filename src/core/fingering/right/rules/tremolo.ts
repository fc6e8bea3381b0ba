/** Orders of a tremolo, and where the music has one. */
import type { RightFinger } from '../../../instrument/rightProfile';
import type { Phase } from '../../../figures/tremoloGroups';
import type { FingeringProblem } from '../../problem/problem';

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

/**
 * By strike: which finger the chosen order gives it, null outside of a tremolo. The fingers of the order are dealt to
 * the repeated notes of each group; a longer group goes round.
 */
export function tremoloFingers(
  { moments, strikes }: FingeringProblem,
  phases: readonly (Phase | null)[],
  orderAt: (momentIndex: number) => TremoloId | null,
): readonly (RightFinger | null)[] {
  const fingers: (RightFinger | null)[] = strikes.map(() => null);
  for (const { struck, index } of moments) {
    const id = orderAt(index);
    if (id === null) continue;
    const [, ...order]: readonly RightFinger[] = TREMOLOS[id];
    for (const strike of struck) {
      const phase = phases[strike];
      // A single note between two thumbs takes part only in an order of one finger.
      if (phase && (phase.of > 1 || order.length === 1)) fingers[strike] = order[phase.at % order.length]!;
    }
  }
  return fingers;
}
