/** A stretch of a passage as voices of a drill, with what is held from before, and nothing after it. */
import type { DrillEvent, DrillNote } from '../drill';
import type { Passage, PassageNote } from './passage';

export interface Cut {
  readonly from: number;
  readonly to: number;
}

/** Written values in eighths, longest first; what is left over of a length is a rest. Dots and triplets included. */
const VALUES = [12, 8, 6, 4, 3, 2, 1.5, 4 / 3, 1, 0.75, 2 / 3, 0.5, 1 / 3, 0.25] as const;
const NEAR = 1e-6;

/** By voice of the passage; each as long as the cut. */
export function voicesOf(passage: Passage, { from, to }: Cut): readonly (readonly DrillEvent[])[] {
  const inside = passage.notes.filter(({ at, eighths }) => at < to - NEAR && at + eighths > from + NEAR);
  const names = [...new Set(inside.map(({ voice }) => voice))].sort();
  return names.map((voice) =>
    voiceOf(
      inside.filter((note) => note.voice === voice),
      { from, to },
    ),
  );
}

function voiceOf(notes: readonly PassageNote[], { from, to }: Cut): readonly DrillEvent[] {
  const onsets = [...new Set(notes.map(({ at }) => Math.max(from, at)))].sort((a, b) => a - b);
  const events: DrillEvent[] = [];
  let at = from;
  onsets.forEach((onset, k) => {
    const here = notes.filter((note) => Math.max(from, note.at) === onset);
    const until = Math.min(to, onsets[k + 1] ?? to, ...here.map((note) => note.at + note.eighths));
    events.push(...silence(onset - at));
    const written = VALUES.find((value) => value <= until - onset + NEAR);
    if (written !== undefined) {
      events.push({
        // A note that is held from before is laid again; who plays it is left open.
        notes: here.map((note) => drillNote(note, note.at < from)),
        eighths: written,
        ...(here.every(({ slurred, at: own }) => slurred && own > from) && { slurred: true }),
      });
    }
    at = onset + (written ?? 0);
  });
  return [...events, ...silence(to - at)];
}

const silence = (eighths: number): readonly DrillEvent[] => (eighths > NEAR ? [{ notes: [], eighths }] : []);

export const drillNote = (
  { string, fret, finger, letter, harmonic, midi }: PassageNote,
  held = false,
): DrillNote => ({
  string,
  fret,
  finger,
  letter: held ? null : letter,
  ...(harmonic && { harmonic, midi: midi! }),
});
