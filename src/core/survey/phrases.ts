/** Lines of about four bars, with letters for what comes again: the form of a piece. */
import type { Measure, Score } from '../score/model';
import type { BarKind } from './sameMusic';

export interface Phrase {
  readonly fromBar: number;
  readonly toBar: number;
  /** "A", "A′" varied, "A+5" moved up by five semitones. */
  readonly label: string;
  readonly letter: string;
  readonly relation: BarKind['relation'];
  /** Begins with an upbeat that lies before its first bar line. */
  readonly upbeat: boolean;
}

const USUAL_BARS = 4;
const MOST_BARS = 8;

/** Cost of a line of so many bars: four are usual, two and eight common. From memory. */
const lengthCost = (bars: number) =>
  bars === USUAL_BARS
    ? 0
    : bars === 8
      ? 1.2
      : bars === 2
        ? 1.6
        : bars === 1
          ? 4
          : 2 + 0.3 * Math.abs(bars - USUAL_BARS);

/** `letters` by bar uid are the teacher's and hold for the phrase that begins there. */
export function phrasesOf(
  score: Score,
  kinds: readonly BarKind[],
  letters: ReadonlyMap<string, string>,
): readonly Phrase[] {
  const upbeatBar = isUpbeat(score.measures, 0) ? 1 : 0;
  const starts = phraseStarts(score, upbeatBar, letters);
  const phrases: Phrase[] = [];
  starts.forEach((start, k) => {
    const fromBar = k === 0 ? 0 : start;
    const toBar = (starts[k + 1] ?? score.measures.length) - 1;
    const own = letters.get(score.measures[start]!.uid) ?? letters.get(score.measures[fromBar]!.uid);
    const found = own ? null : likeEarlier(phrases, kinds, start, toBar, upbeatBar);
    const letter = own ?? found?.letter ?? nextLetter(phrases);
    const relation = own ? 'exact' : (found?.relation ?? 'new');
    const label = own ?? found?.label ?? letter + suffix(found);
    const upbeat = k === 0 ? upbeatBar === 1 : startsBeforeBar(score, start);
    phrases.push({ fromBar, toBar, label, letter, relation, upbeat });
  });
  return phrases;
}

/** A first bar shorter than the metre asks for. */
export const isUpbeat = (measures: readonly Measure[], bar: number): boolean => {
  const measure = measures[bar];
  return measure !== undefined && measure.durationTicks < measure.nominalTicks && measures.length > 1;
};

/** Dynamic programming over bar lines: usual lengths, and ends where the music says so. */
function phraseStarts(score: Score, first: number, letters: ReadonlyMap<string, string>): readonly number[] {
  const { measures } = score;
  const strength = measures.map((_, bar) => boundaryAfter(score, bar));
  const asked = (bar: number) => letters.has(measures[bar]?.uid ?? '');
  const best: number[] = Array.from({ length: measures.length + 1 }, () => Infinity);
  const from: number[] = [];
  best[first] = 0;
  for (let end = first + 1; end <= measures.length; end++) {
    for (let start = Math.max(first, end - MOST_BARS); start < end; start++) {
      const crossed = Array.from({ length: end - start - 1 }, (_, k) => start + 1 + k);
      const held = crossed.reduce((sum, bar) => sum + (asked(bar) ? 50 : strength[bar - 1]!), 0);
      const cost = best[start]! + lengthCost(end - start) + held;
      if (cost < best[end]!) [best[end], from[end]] = [cost, start];
    }
  }
  const starts: number[] = [];
  for (let end = measures.length; end > first; end = from[end]!) starts.unshift(from[end]!);
  return starts.length > 0 ? starts : [0];
}

/** How much the music stops at the end of a bar: repeat, double line, ending, fermata, rest, long last note. */
function boundaryAfter(score: Score, bar: number): number {
  const measure = score.measures[bar]!;
  const next = score.measures[bar + 1];
  let strength = 0;
  if (measure.repeatEnd || measure.sectionEnd || next?.repeatStart) strength += 4;
  if (measure.endingStops || next?.ending) strength += 2;
  const end = measure.startTicks + measure.durationTicks;
  const last = score.notes.filter((note) => note.measureIndex === bar);
  if (last.some((note) => note.tags.some((tag) => tag === 'fermata' || tag === 'breath'))) strength += 2;
  const latestOnset = Math.max(0, ...last.map((note) => note.onsetTicks));
  const silentFrom = Math.max(0, ...last.map((note) => note.onsetTicks + note.durationTicks));
  if (silentFrom < end) strength += 1;
  if (end - latestOnset >= measure.nominalTicks / 2) strength += 1;
  return strength;
}

/** The melody enters on the last beat before the bar line after a silence. */
function startsBeforeBar(score: Score, bar: number): boolean {
  const line = score.measures[bar]!.startTicks;
  const before = score.notes.filter((note) => note.onsetTicks < line && note.measureIndex === bar - 1);
  const top = before.filter((note) => note.voice === before.at(-1)?.voice);
  const onset = top.at(-1)?.onsetTicks;
  if (onset === undefined || line - onset > score.ticksPerQuarter) return false;
  const previous = top.at(-2);
  return previous !== undefined && previous.onsetTicks + previous.durationTicks < onset;
}

interface Found {
  readonly letter: string;
  readonly relation: BarKind['relation'];
  readonly semitones: number;
  /** Of the line that comes again as it was. */
  readonly label: string | null;
}

const SHARE = 0.5;

function likeEarlier(
  phrases: readonly Phrase[],
  kinds: readonly BarKind[],
  start: number,
  toBar: number,
  upbeatBar: number,
): Found | null {
  // A variation is only what no earlier line is more like.
  let varied: Found | null = null;
  for (const phrase of phrases) {
    const from = phrase.fromBar === 0 ? upbeatBar : phrase.fromBar;
    const length = Math.min(phrase.toBar - from, toBar - start) + 1;
    const rows = Array.from({ length }, (_, k) => relate(kinds, from + k, start + k));
    const same = rows.filter((row) => row?.relation === 'exact').length;
    const moved = rows.filter((row) => row?.relation === 'transposed');
    const full = length === phrase.toBar - from + 1 && length === toBar - start + 1;
    if (same === length && full)
      return { letter: phrase.letter, relation: 'exact', semitones: 0, label: phrase.label };
    const semitones = moved[0]?.semitones ?? 0;
    if (moved.length === length && moved.every((row) => row!.semitones === semitones)) {
      return { letter: phrase.letter, relation: 'transposed', semitones, label: null };
    }
    const alike = rows.filter((row) => row !== null).length;
    if (alike >= SHARE * Math.max(length, toBar - start + 1)) {
      varied ??= { letter: phrase.letter, relation: 'varied', semitones: 0, label: null };
    }
  }
  return varied;
}

function relate(
  kinds: readonly BarKind[],
  a: number,
  b: number,
): Pick<BarKind, 'relation' | 'semitones'> | null {
  const [first, second] = [kinds[a]!, kinds[b]!];
  if (first.like !== second.like) return null;
  const semitones = second.semitones - first.semitones;
  const varied = first.relation === 'varied' || second.relation === 'varied';
  return { relation: varied ? 'varied' : semitones === 0 ? 'exact' : 'transposed', semitones };
}

function nextLetter(phrases: readonly Phrase[]): string {
  const used = new Set(phrases.map((phrase) => phrase.letter));
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
  for (const letter of letters) if (!used.has(letter)) return letter;
  return `Z${used.size - 25}`;
}

function suffix(found: Found | null): string {
  if (found?.relation === 'varied') return '′';
  if (found?.relation === 'transposed')
    return found.semitones > 0 ? `+${found.semitones}` : `−${-found.semitones}`;
  return '';
}
