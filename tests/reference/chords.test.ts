/** Chord names and keys against a general-purpose music-theory library (teoria). */
import teoria from 'teoria';
import { describe, expect, it } from 'vitest';
import {
  bestChord,
  CHORD_QUALITIES,
  chordName,
  maybeChord,
  pitchClassName,
} from '../../src/core/survey/chords';
import { fifthsOf } from '../../src/core/survey/keyAreas';

const ROOTS = Array.from({ length: 12 }, (_, root) => root);
const pitchClassesIn = (name: string): number[] => [
  ...new Set(
    teoria
      .chord(name)
      .notes()
      .map((note) => note.chroma()),
  ),
];

describe.each(CHORD_QUALITIES)('$id', (quality) => {
  it.each(ROOTS)(
    'on root %i has the notes that the library gives its name, and they give the name back',
    (root) => {
      const name = chordName({ root, quality, bass: root }, false);
      const tones = quality.tones.map((tone) => (root + tone) % 12).sort((a, b) => a - b);
      expect(pitchClassesIn(name).sort((a, b) => a - b)).toEqual(tones);
      const weights = ROOTS.map((pitchClass) => (tones.includes(pitchClass) ? 1 : 0));
      const found = bestChord(weights, root)!;
      expect(found.root).toBe(root);
      expect(found.quality.id).toBe(quality.id);
      expect(maybeChord(name)).toMatchObject({ root, quality: { id: quality.id } });
    },
  );
});

describe('key signatures', () => {
  it.each(ROOTS)('of the keys on pitch class %i are the library’s', (tonic) => {
    for (const mode of ['major', 'minor'] as const) {
      const fifths = fifthsOf(tonic, mode === 'major');
      const scale = teoria
        .note(pitchClassName(tonic, fifths < 0).toLowerCase())
        .scale(mode)
        .notes();
      const altered = scale.reduce((sum, note) => sum + note.accidentalValue(), 0);
      expect(altered, `${pitchClassName(tonic, fifths < 0)} ${mode}`).toBe(fifths);
    }
  });
});
