/** Corrections of a pitch are kept in the file's own terms; the teacher sees the piece as it stands. */
import type { Pitch } from '../music/pitch';
import { transposedPitch } from '../music/transpose';
import type { Score, ScoreNote } from './model';

/** What `pitch` at the place of `note` is in the file, before the piece is transposed. */
export function pitchInFile(score: Score, { onsetTicks }: ScoreNote, pitch: Pitch): Pitch {
  if (score.transposedBy === 0) return pitch;
  const fifths = score.keys.findLast(({ tick }) => tick <= onsetTicks)?.fifths ?? 0;
  return transposedPitch(pitch, fifths, -score.transposedBy);
}
