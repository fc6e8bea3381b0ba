/** Notes of bars that hold exactly the same music, each with its twin in the first of them. */
import type { Score, ScoreNote } from '../score/model';

/** By uid: the note of the first bar of the same music that stands at the same place of the same voice. */
export function twinNotes(score: Score): ReadonlyMap<string, string> {
  const bars: ScoreNote[][] = score.measures.map(() => []);
  for (const note of score.notes) bars[note.measureIndex]!.push(note);
  const firstOf = new Map<string, ReadonlyMap<string, string>>();
  const twins = new Map<string, string>();
  bars.forEach((notes, bar) => {
    if (notes.length === 0) return;
    const { startTicks } = score.measures[bar]!;
    const keys = notes.map(
      ({ onsetTicks, durationTicks, soundingMidi, voice }) =>
        `${onsetTicks - startTicks} ${durationTicks} ${soundingMidi} ${voice}`,
    );
    const music = [...keys].sort().join(',');
    const first = firstOf.get(music);
    if (first) notes.forEach(({ uid }, k) => twins.set(uid, first.get(keys[k]!)!));
    else firstOf.set(music, new Map(notes.map(({ uid }, k) => [keys[k]!, uid])));
  });
  return twins;
}
