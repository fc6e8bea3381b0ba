/** What a chord does in its key, as Roman numerals: upper case with a major third, lower case with a minor one. */
import type { Chord } from './chords';
import type { KeyArea } from './keyAreas';

const DEGREES_MAJOR: Readonly<Record<number, string>> = {
  0: 'I',
  1: '♭II',
  2: 'II',
  3: '♭III',
  4: 'III',
  5: 'IV',
  6: '♯IV',
  7: 'V',
  8: '♭VI',
  9: 'VI',
  10: '♭VII',
  11: 'VII',
};
const DEGREES_MINOR: Readonly<Record<number, string>> = {
  0: 'I',
  1: '♭II',
  2: 'II',
  3: 'III',
  4: '♯III',
  5: 'IV',
  6: '♯IV',
  7: 'V',
  8: 'VI',
  9: '♯VI',
  10: 'VII',
  11: '♯VII',
};

const SUFFIXES: Readonly<Record<string, string>> = {
  '7': '7',
  m7: '7',
  maj7: 'maj7',
  dim: '°',
  m7b5: 'ø7',
  dim7: '°7',
  aug: '+',
  sus4: 'sus4',
};

/** "V7", "ii", "vii°"; a dominant of another degree than I reads "V7/V". */
export function functionOf(chord: Chord, key: KeyArea): string {
  const degree = (chord.root - key.tonic + 12) % 12;
  const secondary = secondaryDominant(chord, degree, key);
  if (secondary) return secondary;
  const names = key.mode === 'major' ? DEGREES_MAJOR : DEGREES_MINOR;
  const small = chord.quality.family === 'minor' || chord.quality.family === 'diminished';
  const name = names[degree]!;
  const cased = small ? name.replace(/[IV]+/, (numeral) => numeral.toLowerCase()) : name;
  return cased + (SUFFIXES[chord.quality.suffix] ?? '');
}

/** A dominant seventh that is not the key's own leads to the chord a fifth below it. */
function secondaryDominant(chord: Chord, degree: number, key: KeyArea): string | null {
  if (chord.quality.id !== 'dominant-seventh' || degree === 7) return null;
  const target = (degree + 5) % 12;
  const inKey =
    key.mode === 'major'
      ? { 2: 'ii', 4: 'iii', 5: 'IV', 7: 'V', 9: 'vi' }
      : { 3: 'III', 5: 'iv', 7: 'V', 8: 'VI', 10: 'VII' };
  const name = (inKey as unknown as Readonly<Record<number, string>>)[target];
  return name ? `V7/${name}` : null;
}
