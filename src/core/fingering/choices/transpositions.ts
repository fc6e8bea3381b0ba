/** At which pitches a piece lies on the guitar: those that leave the fewest notes outside it, the nearest first. */
import { lowestMidi, openMidi, type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { HandProfile } from '../../instrument/handProfile';
import { transposedKey } from '../../music/transpose';
import type { Score } from '../../score/model';

export interface Transposition {
  /** From the file's pitches. */
  readonly semitones: number;
  readonly fifths: number;
  /** Notes that no string has. */
  readonly outside: number;
}

const MOST_SEMITONES = 12;

/**
 * The present pitch first, then up to `count` others that are no worse: fewer notes outside, then fewer semitones,
 * then fewer signs.
 */
export function transpositionsOf(
  score: Score,
  hand: Pick<HandProfile, 'highestFret'>,
  count: number,
): readonly Transposition[] {
  const tuning = tuningOrThrow(score.tuningId);
  const key = score.keys[0]?.fifths ?? 0;
  const rowOf = (step: number): Transposition => ({
    semitones: score.transposedBy + step,
    fifths: transposedKey(key, step),
    outside: outsideBy(score, tuning, hand, step),
  });
  const present = rowOf(0);
  const others = Array.from(
    { length: 2 * MOST_SEMITONES + 1 },
    (_, k) => k - MOST_SEMITONES - score.transposedBy,
  )
    .filter((step) => step !== 0)
    .map(rowOf)
    .filter(({ outside }) => outside <= present.outside)
    .sort(
      (a, b) =>
        a.outside - b.outside ||
        Math.abs(a.semitones) - Math.abs(b.semitones) ||
        Math.abs(a.fifths) - Math.abs(b.fifths) ||
        a.semitones - b.semitones,
    );
  return [present, ...others.slice(0, count)];
}

function outsideBy(
  score: Score,
  tuning: Tuning,
  { highestFret }: Pick<HandProfile, 'highestFret'>,
  step: number,
): number {
  const lowest = lowestMidi(tuning);
  const highest = openMidi(tuning, 1) + highestFret;
  return score.notes.filter(({ soundingMidi, harmonic, leftOut }) => {
    const midi = soundingMidi + step;
    return !harmonic && !leftOut && (midi < lowest || midi > highest);
  }).length;
}
