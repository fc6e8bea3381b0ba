/** Orders of fingers: pairs that alternate in a line, and cycles of a tremolo. Source: handbook 6 and 13. */
import type { RightFinger } from '../../../instrument/rightProfile';

/** Fingers of a line, one after the other and again from the first. */
export const TURNS = {
  im: ['i', 'm'],
  ma: ['m', 'a'],
  ia: ['i', 'a'],
  ami: ['a', 'm', 'i'],
} as const satisfies Readonly<Record<string, readonly RightFinger[]>>;

export type TurnId = keyof typeof TURNS;
export const TURN_IDS = Object.keys(TURNS) as TurnId[];

/** The repeated notes between two thumbs, first to last; a longer group goes round. */
export const CYCLES = {
  ami: { letters: ['a', 'm', 'i'], rank: 0 },
  ima: { letters: ['i', 'm', 'a'], rank: 2 },
  aim: { letters: ['a', 'i', 'm'], rank: 3 },
  mim: { letters: ['m', 'i', 'm'], rank: 3 },
  imi: { letters: ['i', 'm', 'i'], rank: 4 },
  mi: { letters: ['m', 'i'], rank: 0 },
  im: { letters: ['i', 'm'], rank: 1 },
  am: { letters: ['a', 'm'], rank: 2 },
  iami: { letters: ['i', 'a', 'm', 'i'], rank: 0 },
  amia: { letters: ['a', 'm', 'i', 'a'], rank: 2 },
} as const satisfies Readonly<
  Record<string, { readonly letters: readonly RightFinger[]; readonly rank: number }>
>;

export type CycleId = keyof typeof CYCLES;
export const CYCLE_IDS = Object.keys(CYCLES) as CycleId[];

/** Which cycles a group of so many repeated notes can take: those of its length, or shorter ones going round. */
export function cyclesOf(count: number): readonly CycleId[] {
  const exact = CYCLE_IDS.filter((id) => CYCLES[id].letters.length === count);
  if (exact.length > 0) return exact;
  return CYCLE_IDS.filter((id) => CYCLES[id].letters.length <= 3 && id !== 'mim' && id !== 'imi');
}
