/** Rows of words over and under a system: chords, form, counting. */
import type { EngravedPage } from '../engraving/page';
import { surveyOf } from '../survey/survey';
import type { Score } from '../score/model';
import { type Face, type TextOptions, withSigns } from './lettering';
import type { CopySource } from './source';

export interface RowText {
  readonly x: number;
  readonly text: string;
  readonly face: Face;
  readonly anchor: NonNullable<TextOptions['anchor']>;
}

export interface OfSystem {
  readonly page: EngravedPage;
  readonly index: number;
  readonly source: CopySource;
}

/** Made once a copy: every system asks. */
const surveys = new WeakMap<Score, ReturnType<typeof surveyOf>>();

export function surveyed({ score, corrections, plan }: CopySource) {
  const known = surveys.get(score) ?? surveyOf(score, corrections, plan);
  surveys.set(score, known);
  return known;
}

/** The name of a chord where it is not that of the bar before. */
export function chordRow({ page, index, source }: OfSystem): readonly RowText[] {
  const { bars } = surveyed(source);
  return barsOf(page, index).flatMap((bar): readonly RowText[] => {
    const { chord } = bars[bar]!;
    const isNew = chord !== null && (bar === 0 || bars[bar - 1]!.chord !== chord || isFirst(page, bar));
    return isNew
      ? [{ x: firstNoteX(page, source.score, bar), text: withSigns(chord), face: 'bold', anchor: 'start' }]
      : [];
  });
}

/** Letters of the form, and where the same line has been before. */
export function formRow({ page, index, source }: OfSystem): readonly RowText[] {
  return barsOf(page, index).flatMap((bar): readonly RowText[] => {
    const text = phraseText(source, bar);
    return text === null ? [] : [{ x: page.bars[bar]!.left, text, face: 'italic', anchor: 'start' }];
  });
}

/** "A", or "A, as from bar 1"; null where no line begins. */
export function phraseText(source: CopySource, bar: number): string | null {
  const { phrases } = surveyed(source);
  const phrase = phrases.find(({ fromBar }) => fromBar === bar);
  if (!phrase) return null;
  const earlier = phrases.find(({ fromBar, label }) => fromBar < bar && label === phrase.label);
  return earlier && phrase.relation === 'exact'
    ? `${phrase.label}, as from bar ${source.score.measures[earlier.fromBar]!.number}`
    : phrase.label;
}

/** "1 & 2 e & a": the beats of each onset. Source: common practice of counting aloud. */
export function countingRow(
  { page, index, source }: OfSystem,
  counted: ReadonlySet<number>,
): readonly RowText[] {
  const { score } = source;
  const noteOf = new Map(page.notes.map((note) => [note.uid, note]));
  const seen = new Set<number>();
  return score.notes.flatMap((note): readonly RowText[] => {
    const box = noteOf.get(note.uid);
    if (box?.system !== index || note.grace || !counted.has(note.measureIndex) || seen.has(note.onsetTicks))
      return [];
    seen.add(note.onsetTicks);
    const text = syllable(score, note.onsetTicks, note.measureIndex);
    return [{ x: box.x + box.width / 2, text, face: 'regular', anchor: 'middle' }];
  });
}

/** By the part of a beat that has gone by, in twelfths. */
const PARTS: Readonly<Record<number, string>> = { 3: 'e', 4: 'la', 6: '&', 8: 'li', 9: 'a' };

export function syllable(score: Score, ticks: number, bar: number): string {
  const metre = score.metres.findLast((one) => one.tick <= ticks);
  const beatTicks = (score.ticksPerQuarter * 4) / (metre?.beatType ?? 4);
  const beats = (ticks - score.measures[bar]!.startTicks) / beatTicks;
  const part = Math.round(12 * (beats - Math.floor(beats)));
  return part === 0 ? String(Math.floor(beats) + 1) : (PARTS[part] ?? '·');
}

/**
 * Bars by their printed numbers, "3, 5-8"; all where nothing is named.
 * @returns indices; a number that no bar has is passed over
 */
export function barsNamed(score: Score, text: string): ReadonlySet<number> {
  const all = score.measures.map(({ number, index }) => ({ number, index }));
  if (text.trim() === '') return new Set(all.map(({ index }) => index));
  const named = text.split(',').flatMap((part) => {
    const [from, to = from] = part
      .split(/[-–]/)
      .map((end) => all.find(({ number }) => number === end.trim())?.index);
    return from === undefined || to === undefined
      ? []
      : all.filter(({ index }) => index >= from && index <= to).map(({ index }) => index);
  });
  return new Set(named);
}

const barsOf = (page: EngravedPage, index: number): readonly number[] =>
  page.bars.flatMap(({ system }, k) => (system === index ? [k] : []));

const isFirst = (page: EngravedPage, bar: number) => page.bars[bar - 1]?.system !== page.bars[bar]!.system;

function firstNoteX(page: EngravedPage, score: Score, bar: number): number {
  const own = new Set(score.notes.filter(({ measureIndex }) => measureIndex === bar).map(({ uid }) => uid));
  const xs = page.notes.filter(({ uid }) => own.has(uid)).map(({ x }) => x);
  return xs.length > 0 ? Math.min(...xs) : page.bars[bar]!.left;
}
