/** What a score sounds like, as one text for each note: pitch, onset and length in quarters. */
import { readScore } from '../../src/core/formats/musicxml/readScore';

export interface SoundingNote {
  readonly key: string;
}

/** @throws Error for a document that cannot be read */
export function soundingNotes(
  text: string,
  convertedFrom: 'abc' | 'mei' | null = null,
): readonly SoundingNote[] {
  const document = readScore(text, { convertedFrom });
  if (!document.ok) throw new Error(document.error.code);
  const { notes, ticksPerQuarter } = document.value.score;
  return notes.map(({ soundingMidi, onsetTicks, durationTicks }) => ({
    key: `${soundingMidi} ${(onsetTicks / ticksPerQuarter).toFixed(3)} ${(durationTicks / ticksPerQuarter).toFixed(3)}`,
  }));
}
