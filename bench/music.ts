/** Generated music for the benchmark; invented, deterministic. */
import { barXml, documentXml, noteXml, randomFrom, type TestNote } from '../tests/helpers/music';

const SCALE = [0, 2, 4, 5, 7, 9, 11] as const;
const degree = (step: number) => 12 * Math.floor(step / 7) + SCALE[((step % 7) + 7) % 7]!;

/** A tune in steps of the C major scale above C3, from G3 to G4. */
function walker(random: () => number) {
  let tune = 9;
  return () => {
    tune = Math.min(14, Math.max(7, tune + Math.round(4 * random() - 2)));
    return 48 + degree(tune);
  };
}

/** Two voices: a moving part of eighths over a bass of `bassEighths` each; a bar has eight eighths. */
export function twoVoices(bars: number, seed = 1, bassEighths = 4): string {
  const random = randomFrom(seed);
  const walk = walker(random);
  const notes: TestNote[] = [];
  for (let k = 0; k < 8 * bars; k++) notes.push({ midi: walk(), onset: k, length: 1, voice: 1 });
  for (let onset = 0; onset < 8 * bars; onset += bassEighths)
    notes.push({ midi: 36 + degree(2 + Math.floor(6 * random())), onset, length: bassEighths, voice: 2 });
  return barXml(notes, 88);
}

/** The same with a bass that is held for two bars: everything is played over a note that keeps a finger busy. */
export const longHeld = (bars: number, seed = 1): string => twoVoices(bars, seed, 16);

/** Common chords of four notes, two to a bar. */
const CHORDS: readonly (readonly number[])[] = [
  [48, 55, 60, 64],
  [45, 52, 60, 64],
  [50, 57, 62, 65],
  [43, 55, 59, 65],
  [40, 52, 59, 68],
  [53, 57, 60, 65],
  [47, 54, 59, 63],
  [50, 57, 62, 66],
];

export function chordal(bars: number, seed = 1): string {
  const random = randomFrom(seed);
  const notes = Array.from({ length: 2 * bars }, (_, k) =>
    CHORDS[Math.floor(CHORDS.length * random())]!.map((midi) => ({
      midi,
      onset: 4 * k,
      length: 4,
      voice: 1,
    })),
  ).flat();
  return barXml(notes, 72);
}

/** Tremolo: on each eighth a bass note of a broken chord, then the melody three times; sixty-fourths of the bar. */
export function tremolo(bars: number, seed = 1): string {
  const random = randomFrom(seed);
  const notes: TestNote[] = [];
  for (let bar = 0; bar < bars; bar++) {
    const chord = CHORDS[Math.floor(CHORDS.length * random())]!;
    for (let beat = 0; beat < 4; beat++) {
      const at = 16 * bar + 4 * beat;
      notes.push({ midi: chord[beat % 3]!, onset: at, length: 4, voice: 2 });
      for (let k = 1; k < 4; k++)
        notes.push({ midi: chord[3]! + (beat === 3 ? 1 : 0), onset: at + k, length: 1, voice: 1 });
    }
  }
  return barXml(notes, 240);
}

/** The same with two repeats, each with a first and a second ending of a bar: four ways back or on. */
export function repeatedVoices(bars: number, seed = 1): string {
  const half = Math.floor(bars / 2);
  const bar = (side: 'left' | 'right', content: string) => `<barline location="${side}">${content}</barline>`;
  const forward = bar('left', '<repeat direction="forward"/>');
  const first =
    bar('left', '<ending number="1" type="start"/>') +
    bar('right', '<ending number="1" type="stop"/><repeat direction="backward"/>');
  const second =
    bar('left', '<ending number="2" type="start"/>') + bar('right', '<ending number="2" type="stop"/>');
  return documentXml(
    voicesOf(bars, seed).map((notes, k) => {
      const at = k % half;
      return `${at === 0 ? forward : ''}${at === half - 2 ? first : at === half - 1 ? second : ''}${notes}`;
    }),
  );
}

/** The kind of `twoVoices` in bars of its own: ten notes each. */
export const barredVoices = (bars: number, seed = 1): string => documentXml(voicesOf(bars, seed));

function voicesOf(bars: number, seed: number): readonly string[] {
  const random = randomFrom(seed);
  const walk = walker(random);
  return Array.from({ length: bars }, () => {
    const upper = Array.from({ length: 8 }, () => noteXml({ midi: walk(), onset: 0, length: 1 }));
    const lower = [0, 4].map(() =>
      noteXml({ midi: 36 + degree(2 + Math.floor(6 * random())), onset: 0, length: 4, voice: 2 }),
    );
    return `${upper.join('')}<backup><duration>8</duration></backup>${lower.join('')}`;
  });
}
