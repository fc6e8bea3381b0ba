/** Strings on which notes lie in a position: what a teacher means by "play it in the fifth position". */
import { openMidi, STRINGS, tuningOrThrow } from '../../instrument/tuning';
import type { Score } from '../../score/model';

/** One finger per fret, and a fret of stretch on the upper side. Common practice. */
const SPAN = 5;

/** Notes that have a place there, each with its string; open strings and notes with none are left as they are. */
export function stringsNear(
  score: Score,
  position: number,
): readonly (readonly [uid: string, string: number])[] {
  const tuning = tuningOrThrow(score.tuningId);
  const taken = new Set<string>();
  return score.notes.flatMap(({ uid, soundingMidi, onsetTicks, harmonic }) => {
    const string = STRINGS.find((one) => {
      const fret = soundingMidi - openMidi(tuning, one);
      return fret >= position && fret < position + SPAN;
    });
    // Of two notes at once only one can have a string.
    const key = `${onsetTicks} ${string}`;
    if (string === undefined || harmonic === 'natural' || taken.has(key)) return [];
    taken.add(key);
    return [[uid, string] as const];
  });
}
