/** The note that the teacher is at, the passage that is marked, and the ways from one to the next. */
import type { PlannedNote } from '$core/fingering/report/plan';
import {
  barsOf,
  breathAround,
  notesIn,
  type Range,
  rangeBetween,
  rangeOfBars,
  wholeRange,
} from '$core/score/range';
import type { Score, ScoreNote } from '$core/score/model';
import { alongVoice, byBar, throughSounding, toEnd } from '$core/score/ways';
import type { Phrase } from '$core/survey/phrases';
import type { Planning } from './planning.svelte';

/** From a note to another; null where there is none that way. */
export type Way = (score: Score, uid: string) => string | null;

export const WAYS = {
  onward: (score: Score, uid: string) => alongVoice(score, uid, 1),
  back: (score: Score, uid: string) => alongVoice(score, uid, -1),
  nextBar: (score: Score, uid: string) => byBar(score, uid, 1),
  previousBar: (score: Score, uid: string) => byBar(score, uid, -1),
  higher: (score: Score, uid: string) => throughSounding(score, uid, 1),
  lower: (score: Score, uid: string) => throughSounding(score, uid, -1),
  first: (score: Score, uid: string) => toEnd(score, uid, 'first'),
  last: (score: Score, uid: string) => toEnd(score, uid, 'last'),
} as const satisfies Readonly<Record<string, Way>>;

const NO_NOTES: ReadonlySet<string> = new Set();

export class Selection {
  uid = $state<string | null>(null);
  /** What is marked besides the note; null where nothing is. */
  range = $state.raw<Range | null>(null);
  /** Where marking began. */
  private anchor: string | null = null;

  readonly note: PlannedNote | null = $derived.by(
    () => this.planning.plan?.notes.find((note) => note.uid === this.uid) ?? null,
  );
  /** The notes that are marked. */
  readonly ranged: readonly ScoreNote[] = $derived.by(() => {
    const { score } = this.planning;
    return score && this.range ? notesIn(score, this.range) : [];
  });
  readonly rangedUids: ReadonlySet<string> = $derived(
    this.ranged.length === 0 ? NO_NOTES : new Set(this.ranged.map(({ uid }) => uid)),
  );

  constructor(private readonly planning: Planning) {}

  /** A tied note stands for the one that is struck. Whatever was marked is no longer. */
  select(uid: string): void {
    this.range = null;
    this.anchor = null;
    this.moveTo(uid);
  }

  /** Marks everything from where marking began, or else from the selected note, to this one. */
  extendTo(uid: string): void {
    const { score } = this.planning;
    this.anchor ??= this.uid;
    const [from, to] = [this.noteOf(this.anchor), this.headOf(uid)];
    if (!score || !from || !to) return;
    this.range = rangeBetween(from, to);
    this.moveTo(to.uid);
  }

  go(way: Way, extends_ = false): void {
    const { score } = this.planning;
    const next = score && this.uid !== null ? way(score, this.uid) : null;
    if (next === null) return;
    if (extends_) this.extendTo(next);
    else this.select(next);
  }

  mark(range: Range | null): void {
    this.range = range;
    this.anchor = null;
  }

  markBar(): void {
    const here = this.here;
    if (here) this.mark(rangeOfBars(here.score, here.note.measureIndex, here.note.measureIndex));
  }

  /** Of the survey; where that has none, from rest to rest of the voice. */
  markPhrase(phrases: readonly Phrase[]): void {
    const here = this.here;
    if (!here) return;
    const bar = here.note.measureIndex;
    const phrase = phrases.find(({ fromBar, toBar }) => bar >= fromBar && bar <= toBar);
    this.mark(
      phrase && phrase.toBar > phrase.fromBar
        ? rangeOfBars(here.score, phrase.fromBar, phrase.toBar)
        : breathAround(here.score, here.note.onsetTicks, here.note.voice),
    );
  }

  /** Of what is marked only the voice of the note; of nothing, that voice of the whole piece. */
  markVoice(): void {
    const here = this.here;
    if (here) this.mark({ ...(this.range ?? wholeRange(here.score)), voice: here.note.voice });
  }

  markAll(): void {
    const { score } = this.planning;
    if (score) this.mark(wholeRange(score));
  }

  /** Moves one end of what is marked by a bar. */
  moveEnd(end: 'from' | 'to', step: 1 | -1): void {
    const { score } = this.planning;
    if (!score || !this.range) return;
    const { first, last } = barsOf(score, this.range);
    const within = (bar: number) => Math.max(0, Math.min(score.measures.length - 1, bar));
    const [from, to] = end === 'from' ? [within(first + step), last] : [first, within(last + step)];
    if (from <= to) this.range = { ...rangeOfBars(score, from, to), voice: this.range.voice };
  }

  /** To a note of a walk: what is marked stays, because it is gone round. */
  step(uid: string): void {
    this.moveTo(uid);
  }

  /** Whether there was one. @param round whether the first follows the last */
  moveToFinding(step: 1 | -1, round = true): boolean {
    const notes = this.planning.plan?.notes ?? [];
    const order = new Map(notes.map((note, k) => [note.uid, k]));
    const findings = this.planning.plan?.findings ?? [];
    const places = [...new Set(findings.map(({ uids }) => order.get(uids[0] ?? '') ?? -1))]
      .filter((k) => k >= 0)
      .sort((a, b) => a - b);
    const here = order.get(this.uid ?? '') ?? -1;
    const next =
      step > 0
        ? (places.find((k) => k > here) ?? (round ? places[0] : undefined))
        : (places.findLast((k) => k < here) ?? (round ? places.at(-1) : undefined));
    if (next !== undefined) this.select(notes[next]!.uid);
    return next !== undefined;
  }

  /** Number of the bar of a note. */
  barOf(uid: string): string {
    const { score } = this.planning;
    const note = this.noteOf(uid);
    return note ? score!.measures[note.measureIndex]!.number : '';
  }

  private get here(): { readonly score: Score; readonly note: ScoreNote } | null {
    const { score } = this.planning;
    const note = this.noteOf(this.uid);
    return score && note ? { score, note } : null;
  }

  private moveTo(uid: string): void {
    const head = this.headOf(uid);
    if (!head || head.uid === this.uid) return;
    this.uid = head.uid;
    this.planning.forgetPrices();
    this.planning.askPrices(head.uid);
  }

  private noteOf = (uid: string | null): ScoreNote | undefined =>
    this.planning.score?.notes.find((note) => note.uid === uid);

  private headOf = (uid: string): ScoreNote | undefined =>
    this.planning.score?.notes.find((note) => note.uid === uid || note.tiedUids.includes(uid));
}
