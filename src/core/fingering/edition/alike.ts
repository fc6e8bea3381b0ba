/** Where a passage comes again note for note: what its fingering can be copied to. */
import type { Score, ScoreNote } from '../../score/model';

/** From a note of the passage to a note at the same place of the same music. */
export interface Twin {
  readonly from: string;
  readonly to: string;
}

/**
 * All places outside of the bars `first` to `last` that hold exactly their music, bar after bar; each bar by itself where
 * the whole does not come again.
 */
export function twinsOfBars(score: Score, first: number, last: number): readonly Twin[] {
  const bars: ScoreNote[][] = score.measures.map(() => []);
  for (const note of score.notes) bars[note.measureIndex]!.push(note);
  const music = bars.map((notes, bar) => musicOf(notes, score.measures[bar]!.startTicks));
  const twins: Twin[] = [];
  for (let bar = 0; bar < bars.length; bar++) {
    if (bar >= first && bar <= last) continue;
    const source = music.findIndex(
      (one, k) => k >= first && k <= last && one.text !== '' && one.text === music[bar]!.text,
    );
    if (source < 0) continue;
    const at = new Map(music[source]!.keyed);
    for (const [key, uid] of music[bar]!.keyed) twins.push({ from: at.get(key)!, to: uid });
  }
  return twins;
}

function musicOf(notes: readonly ScoreNote[], startTicks: number) {
  const keyed = notes.map(
    ({ uid, onsetTicks, durationTicks, soundingMidi, voice, grace }) =>
      [
        `${onsetTicks - startTicks} ${durationTicks} ${soundingMidi} ${voice} ${grace?.beforeMain ?? ''}`,
        uid,
      ] as const,
  );
  return {
    keyed,
    text: keyed
      .map(([key]) => key)
      .sort()
      .join(','),
  };
}
