/** Generated music for the benchmark: two voices, a moving part of eighths over a bass of half notes. */
import { barXml, documentXml, noteXml, randomFrom, type TestNote } from '../tests/helpers/music';

const SCALE = [0, 2, 4, 5, 7, 9, 11] as const;
const degree = (step: number) => 12 * Math.floor(step / 7) + SCALE[((step % 7) + 7) % 7]!;

export function twoVoices(bars: number, seed = 1): string {
  const random = randomFrom(seed);
  const notes: TestNote[] = [];
  // Steps of the C major scale above C3, the tune from G3 to G4.
  let tune = 9;
  for (let k = 0; k < 8 * bars; k++) {
    notes.push({ midi: 48 + degree(tune), onset: k, length: 1, voice: 1 });
    tune = Math.min(14, Math.max(7, tune + Math.round(4 * random() - 2)));
  }
  for (let k = 0; k < 2 * bars; k++)
    notes.push({ midi: 36 + degree(2 + Math.floor(6 * random())), onset: 4 * k, length: 4, voice: 2 });
  return barXml(notes, 88);
}

/** The same kind of music in bars of its own: ten notes each. */
export function barredVoices(bars: number, seed = 1): string {
  const random = randomFrom(seed);
  let tune = 9;
  const measures = Array.from({ length: bars }, () => {
    const upper = Array.from({ length: 8 }, () => {
      tune = Math.min(14, Math.max(7, tune + Math.round(4 * random() - 2)));
      return noteXml({ midi: 48 + degree(tune), onset: 0, length: 1 });
    });
    const lower = [0, 4].map(() =>
      noteXml({ midi: 36 + degree(2 + Math.floor(6 * random())), onset: 0, length: 4, voice: 2 }),
    );
    return `${upper.join('')}<backup><duration>8</duration></backup>${lower.join('')}`;
  });
  return documentXml(measures);
}
