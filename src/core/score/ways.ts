/**
 * Ways from note to note as a musician goes: along a voice, by the bar, through what sounds at one time. All take and
 * give uids of struck notes; null where there is nothing that way.
 */
import type { Score, ScoreNote } from './model';

const byUid = ({ notes }: Score, uid: string): ScoreNote | null =>
  notes.find((note) => note.uid === uid) ?? null;

/** A place in time, grace notes before the note that they lead to. */
const timeOf = ({ onsetTicks, grace }: ScoreNote): number =>
  onsetTicks - (grace ? 0.5 / (1 + 1 / grace.beforeMain) : 0);

/** Of notes at one time the one that lies nearest in pitch, the higher of two. */
const nearest = (notes: readonly ScoreNote[], midi: number): ScoreNote | null =>
  [...notes].sort(
    (a, b) =>
      Math.abs(a.soundingMidi - midi) - Math.abs(b.soundingMidi - midi) || b.soundingMidi - a.soundingMidi,
  )[0] ?? null;

/** The neighbour in the same voice, over rests and bar lines. */
export function alongVoice(score: Score, uid: string, step: 1 | -1): string | null {
  const here = byUid(score, uid);
  if (!here) return null;
  const time = timeOf(here);
  const others = score.notes.filter(
    (note) => note.voice === here.voice && (step > 0 ? timeOf(note) > time : timeOf(note) < time),
  );
  return firstOf(others, step, here.soundingMidi);
}

function firstOf(notes: readonly ScoreNote[], step: 1 | -1, midi: number): string | null {
  const times = notes.map(timeOf);
  const at = step > 0 ? Math.min(...times) : Math.max(...times);
  return (
    nearest(
      notes.filter((note) => timeOf(note) === at),
      midi,
    )?.uid ?? null
  );
}

/**
 * The first note of the next bar that has any, of the same voice if that plays there; backwards the beginning of the
 * bar, and from there that of the one before.
 */
export function byBar(score: Score, uid: string, step: 1 | -1): string | null {
  const here = byUid(score, uid);
  if (!here) return null;
  const own = firstInBar(score, here.measureIndex, here);
  if (step < 0 && own && own.onsetTicks < here.onsetTicks) return own.uid;
  for (let bar = here.measureIndex + step; bar >= 0 && bar < score.measures.length; bar += step) {
    const first = firstInBar(score, bar, here);
    if (first) return first.uid;
  }
  return null;
}

function firstInBar(score: Score, bar: number, like: ScoreNote): ScoreNote | null {
  const inBar = score.notes.filter(({ measureIndex }) => measureIndex === bar);
  const own = inBar.filter(({ voice }) => voice === like.voice);
  const from = own.length > 0 ? own : inBar;
  const at = Math.min(...from.map(timeOf));
  return nearest(
    from.filter((note) => timeOf(note) === at),
    like.soundingMidi,
  );
}

/** The first or the last note of the piece, of the same voice where it plays there. */
export function toEnd(score: Score, uid: string | null, end: 'first' | 'last'): string | null {
  const here = uid === null ? null : byUid(score, uid);
  const times = score.notes.map(timeOf);
  const at = end === 'first' ? Math.min(...times) : Math.max(...times);
  const there = score.notes.filter((note) => timeOf(note) === at);
  const own = there.filter(({ voice }) => voice === here?.voice);
  return (
    nearest(own.length > 0 ? own : there, here?.soundingMidi ?? Infinity)?.uid ?? there.at(-1)?.uid ?? null
  );
}

/** Higher or lower through all that sounds when a note is struck: held notes of other voices, too. */
export function throughSounding(score: Score, uid: string, step: 1 | -1): string | null {
  const here = byUid(score, uid);
  if (!here) return null;
  const { onsetTicks } = here;
  const sounding = score.notes
    .filter(
      (note) =>
        note.uid === uid ||
        (note.onsetTicks <= onsetTicks &&
          note.onsetTicks + Math.max(1, note.durationTicks) > onsetTicks &&
          !note.grace),
    )
    .sort((a, b) => a.soundingMidi - b.soundingMidi || a.onsetTicks - b.onsetTicks);
  return sounding[sounding.findIndex((note) => note.uid === uid) + step]?.uid ?? null;
}
