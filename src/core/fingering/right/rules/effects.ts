/** Rolls, strums and other effects: which letters they take, how long they last, where the hand is afterwards. */
import type { EffectTag, NoteTag, Pluck } from '../../../score/model';

export interface StrokeEffect {
  /** Letters of a chord of so many strings, lowest first; null leaves the usual sharings. */
  readonly letters: ((count: number) => readonly (readonly Pluck[])[]) | null;
  /** From one string to the next. */
  readonly msPerString: number;
  /** Whether the fingers have left their strings afterwards. */
  readonly away: boolean;
}

const all =
  (...letters: readonly Pluck[]) =>
  (count: number) =>
    letters.map((letter) => Array<Pluck>(count).fill(letter));

/** Times from memory. Source: handbook, "Strums and effects". Rows by the tag that stands at a note of the chord. */
export const EFFECTS = {
  rollUp: { letters: null, msPerString: 35, away: false },
  rollDown: { letters: null, msPerString: 35, away: false },
  brushDown: { letters: all('p', 'i'), msPerString: 12, away: true },
  brushUp: { letters: all('i', 'p'), msPerString: 12, away: true },
  rasgueado: { letters: all('a', 'i'), msPerString: 45, away: true },
  tambora: { letters: all('p'), msPerString: 0, away: true },
  percussive: { letters: all('p', 'i'), msPerString: 0, away: true },
  pizzicato: { letters: all('p'), msPerString: 12, away: false },
} as const satisfies Readonly<Record<EffectTag, StrokeEffect>>;

export type EffectId = keyof typeof EFFECTS;
export const EFFECT_IDS = Object.keys(EFFECTS) as EffectId[];

/**
 * The fingers that go over the strings one after the other, where an effect takes more than the letter that stands
 * for it: a rasgueado goes out with a m i, and back with i alone. Source: handbook, "Strums and effects".
 */
export const fingerOrder = (effect: EffectId | null, letters: readonly Pluck[]): readonly Pluck[] =>
  effect === 'rasgueado' && letters[0] === 'a' ? ['a', 'm', 'i'] : [...new Set(letters)];

/** The first of the list that stands at the notes. */
export const effectAmong = (tags: ReadonlySet<NoteTag>): EffectId | null =>
  EFFECT_IDS.find((id) => tags.has(id)) ?? null;

/** Longer than this no effect is counted, so that the memory of a hand stays small. */
export const LONGEST_TAIL_MS = 300;

/** Strings taken as one gesture, by the letter of the effect. */
export const isStrum = (effect: EffectId | null): boolean =>
  effect !== null && EFFECTS[effect].letters !== null;
