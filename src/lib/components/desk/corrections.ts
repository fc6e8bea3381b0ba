/** Corrections in words, and where they show on the page. */
import type { Register } from '$core/fingering/edition/registers';
import { maybeTuning } from '$core/instrument/tuning';
import { openStringNames } from '$core/messages/en';
import type { Score } from '$core/score/model';
import { EFFECT_NAMES } from '$core/messages/strokes';
import type { EffectTag } from '$core/score/model';
import { tuningName } from '$lib/components/shelf/describe';

const WORDS: Readonly<Record<string, (value: Register['value']) => string>> = {
  pitch: (value) =>
    `pitch ${String(value)
      .replace(/#/g, '♯')
      .replace(/b(?=\d|b)/g, '♭')}`,
  tie: (value) => (value ? 'tied to the next' : 'not tied'),
  voice: (value) => `voice ${value}`,
  length: (value) => `length ${value} ${value === '1' ? 'beat' : 'beats'}`,
  mustRing: () => 'must ring',
  staccato: (value) => (value ? 'staccato' : 'not staccato'),
  leftOut: () => 'left out',
  slur: (value) => (value ? 'slurred from the note before' : 'plucked, no slur'),
  effect: (value) => EFFECT_NAMES[value as EffectTag] ?? String(value),
  chord: (value) => `chord ${value}`,
  form: (value) => `section ${value}`,
  tuning: (value) => tuningWords(String(value)),
  capo: (value) => (value === 0 ? 'no capo' : `capo ${value}`),
  tempo: (value) => `♩ = ${value}`,
  octave: (value) =>
    value === 0
      ? 'sounds as in the file'
      : `sounds ${Number(value) > 0 ? '+' : '−'}${Math.abs(Number(value))} semitones`,
  transpose: (value) => `transposed by ${Number(value) > 0 ? '+' : '−'}${Math.abs(Number(value))} semitones`,
  slurs: (value) => (value === 'ligado' ? 'slurs played by the left hand' : 'slurs are phrase marks'),
};

/** "sixth to D", or the strings one by one. */
export const tuningWords = (id: string): string =>
  maybeTuning(id) && id.startsWith('custom:') ? openStringNames(id) : tuningName(id);

export const correctionWords = ({ attribute, value }: Register): string =>
  WORDS[attribute]?.(value) ?? `${attribute} ${value}`;

/** "Bar 3" for a note or bar, "Whole piece", or where the note is gone. */
export function placeWords(score: Score, target: string): string {
  if (target === 'piece') return 'Whole piece';
  const bar = target.startsWith('b')
    ? score.measures.find((measure) => measure.uid === target)
    : score.measures[noteIn(score, target)?.measureIndex ?? -1];
  return bar ? `Bar ${bar.number}` : 'Not in this version';
}

const noteIn = (score: Score, uid: string) =>
  score.notes.find((note) => note.uid === uid || note.tiedUids.includes(uid));

/** Noteheads that carry a correction. */
export const correctedNotes = (corrections: readonly Register[]): ReadonlySet<string> =>
  new Set(corrections.filter(({ target }) => target.startsWith('n')).map(({ target }) => target));

/** The first note of each bar that something was noticed about. */
export function noticedBars(score: Score): ReadonlySet<string> {
  const bars = new Set(
    score.notices.filter((notice) => /full$/.test(notice.code)).map((notice) => notice.measureIndex),
  );
  return new Set(
    [...bars].flatMap((bar) => {
      const first = score.notes.find((note) => note.measureIndex === bar);
      return first ? [first.uid] : [];
    }),
  );
}
