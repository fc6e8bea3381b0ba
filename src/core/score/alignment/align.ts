/** Which note of a newer score is which note of the older one. */
import type { Score, ScoreNote } from '../model';
import { type BarContent, barContents, pitchKey, placeKey, type WeightOf } from './barContent';
import { type BarPair, pairBars } from './barPairs';
import { type Doubt, doubtOf } from './doubts';

/** An inked note that was found again, but not so that its ink could go with it unasked. */
export interface Doubtful {
  readonly from: string;
  readonly to: string;
  readonly doubt: Doubt;
}

export interface Alignment {
  /** Old uid by new uid, tied noteheads too; without the doubtful ones. */
  readonly notes: ReadonlyMap<string, string>;
  readonly bars: readonly BarPair[];
  /** Notes of the old score that have no note in the new one, and the other way round. */
  readonly lost: readonly string[];
  readonly added: readonly string[];
  readonly doubtful: readonly Doubtful[];
  /** Semitones by which the new file's pitches were moved to meet the old ones. */
  readonly octaveShift: number;
  /** Share of the old notes that were found again, the doubtful ones too. */
  readonly likeness: number;
}

/** Old note by new note, and the old ones that have their pair. */
interface Heads {
  readonly found: Map<ScoreNote, ScoreNote>;
  readonly taken: Set<ScoreNote>;
}

function pair(heads: Heads, next: ScoreNote, old: ScoreNote) {
  heads.found.set(next, old);
  heads.taken.add(old);
}

/**
 * Ink decides between bars that are equal otherwise, and never against the music: its mark on a note belongs to that
 * note, and goes with it when its bar goes.
 */
const INKED_WEIGHT = 1.001;

/**
 * @param inked uids of old notes that carry something of the teacher's: where several alignments share as much
 *   music, the one that keeps most of these is taken
 */
export function alignScores(old: Score, next: Score, inked: ReadonlySet<string>): Alignment {
  const octaveShift = octaveBetween(old, next);
  const weightOf: WeightOf = (uid) => (inked.has(uid) ? INKED_WEIGHT : 1);
  const oldBars = barContents(old, 0, weightOf);
  const nextBars = barContents(next, octaveShift, () => 1);
  const bars = pairBars(oldBars, nextBars);
  const heads: Heads = { found: new Map(), taken: new Set() };
  for (const pair of bars) {
    pairInBar(
      heads,
      oldBars[pair.old]!,
      nextBars[pair.next]!,
      (note) => placeKey(next, note, octaveShift),
      (note) => placeKey(old, note, 0),
    );
  }
  for (const pair of bars) {
    pairInBar(
      heads,
      oldBars[pair.old]!,
      nextBars[pair.next]!,
      (note) => pitchKey(note, octaveShift),
      (note) => pitchKey(note, 0),
    );
  }
  pairLeftovers(heads, oldBars, nextBars, bars, octaveShift);
  const doubt = doubtOf({ old, next, octaveShift }, heads.found, bars, { old: oldBars, next: nextBars });
  return { ...uidsPaired(old, next, heads.found, inked, doubt), bars, octaveShift };
}

function octaveBetween(old: Score, next: Score): number {
  const counts = new Map<number, number>();
  for (const note of old.notes) counts.set(note.soundingMidi, (counts.get(note.soundingMidi) ?? 0) + 1);
  const shared = (shift: number) => {
    const left = new Map(counts);
    return next.notes.filter(({ soundingMidi }) => {
      const count = left.get(soundingMidi + shift) ?? 0;
      left.set(soundingMidi + shift, count - 1);
      return count > 0;
    }).length;
  };
  return [0, 12, -12].reduce((best, shift) => (shared(shift) > shared(best) ? shift : best));
}

/** Pairs notes of two bars that have the same key, in the order of time. */
function pairInBar(
  heads: Heads,
  old: BarContent,
  next: BarContent,
  nextKey: (note: ScoreNote) => string,
  oldKey: (note: ScoreNote) => string,
) {
  const waiting = new Map<string, ScoreNote[]>();
  for (const note of old.notes) {
    if (heads.taken.has(note)) continue;
    waiting.set(oldKey(note), [...(waiting.get(oldKey(note)) ?? []), note]);
  }
  for (const note of next.notes) {
    if (heads.found.has(note)) continue;
    const candidates = waiting.get(nextKey(note)) ?? [];
    // Of two voices in unison each keeps its own.
    const own = candidates.findIndex((one) => one.voice === note.voice);
    const match = candidates.splice(Math.max(0, own), 1)[0];
    if (match) pair(heads, note, match);
  }
}

interface Leftover {
  readonly note: ScoreNote;
  readonly bar: number;
  /** How many paired bars lie before it. */
  readonly place: number;
}

/** Above this many pairs of notes the search is not worth its time: nothing of the music is shared there. */
const MOST_CELLS = 9_000_000;

/**
 * What is left over is paired as the longest common subsequence of pitches between the same paired bars: a bar
 * that another program cut in two, an upbeat counted differently. Pairs are kept for bars that are mostly found.
 */
function pairLeftovers(
  heads: Heads,
  oldBars: readonly BarContent[],
  nextBars: readonly BarContent[],
  bars: readonly BarPair[],
  shift: number,
) {
  const taken = new Set(heads.taken);
  const old = leftovers(
    oldBars,
    (note) => taken.has(note),
    bars.map((pair) => pair.old),
  );
  const next = leftovers(
    nextBars,
    (note) => heads.found.has(note),
    bars.map((pair) => pair.next),
  );
  if (old.length * next.length > MOST_CELLS) return;
  const found = commonSubsequence(
    old,
    next,
    (a, b) => a.note.soundingMidi === b.note.soundingMidi + shift && Math.abs(a.place - b.place) <= 1,
  );
  const foundIn = new Map<number, number>();
  for (const [a] of found) foundIn.set(a.bar, (foundIn.get(a.bar) ?? 0) + 1);
  for (const [a, b] of found) {
    const bar = oldBars[a.bar]!;
    const paired = bar.notes.filter((note) => taken.has(note)).length + foundIn.get(a.bar)!;
    if (paired * 2 >= bar.notes.length) pair(heads, b.note, a.note);
  }
}

function leftovers(
  bars: readonly BarContent[],
  isPaired: (note: ScoreNote) => boolean,
  pairedBars: readonly number[],
): readonly Leftover[] {
  let place = 0;
  return bars.flatMap((content, bar) => {
    while (place < pairedBars.length && pairedBars[place]! < bar) place++;
    return content.notes.filter((note) => !isPaired(note)).map((note) => ({ note, bar, place }));
  });
}

function commonSubsequence<T>(a: readonly T[], b: readonly T[], same: (a: T, b: T) => boolean): [T, T][] {
  const width = b.length + 1;
  const best = new Int32Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--) {
    for (let j = b.length - 1; j >= 0; j--) {
      const skip = Math.max(best[(i + 1) * width + j]!, best[i * width + j + 1]!);
      best[i * width + j] = same(a[i]!, b[j]!) ? Math.max(skip, 1 + best[(i + 1) * width + j + 1]!) : skip;
    }
  }
  const found: [T, T][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const here = best[i * width + j]!;
    if (same(a[i]!, b[j]!) && here === 1 + best[(i + 1) * width + j + 1]!) found.push([a[i++]!, b[j++]!]);
    else if (here === best[(i + 1) * width + j]!) i++;
    else j++;
  }
  return found;
}

function uidsPaired(
  old: Score,
  next: Score,
  heads: ReadonlyMap<ScoreNote, ScoreNote>,
  inked: ReadonlySet<string>,
  doubtAbout: (next: ScoreNote) => Doubt | null,
) {
  const notes = new Map<string, string>();
  const doubtful: Doubtful[] = [];
  for (const [fresh, known] of heads) {
    const carriesInk = [known.uid, ...known.tiedUids].some((uid) => inked.has(uid));
    const doubt = carriesInk ? doubtAbout(fresh) : null;
    if (doubt) {
      doubtful.push({ from: known.uid, to: fresh.uid, doubt });
      continue;
    }
    notes.set(fresh.uid, known.uid);
    fresh.tiedUids.forEach((uid, k) => {
      const tail = known.tiedUids[k];
      if (tail) notes.set(uid, tail);
    });
  }
  const found = new Set([...notes.values(), ...doubtful.map(({ from }) => from)]);
  const paired = new Set(doubtful.map(({ to }) => to));
  const lost = old.notes.filter((note) => !found.has(note.uid)).map((note) => note.uid);
  const added = next.notes.filter(({ uid }) => !notes.has(uid) && !paired.has(uid)).map((note) => note.uid);
  const likeness = old.notes.length === 0 ? 0 : 1 - lost.length / old.notes.length;
  return { notes, lost, added, doubtful, likeness };
}
