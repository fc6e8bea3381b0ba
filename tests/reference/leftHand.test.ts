/**
 * What a teacher sees at once in a fingering, in three keys each. Source: handbook 13; the passages are invented. All of
 * it common practice.
 */
import { describe, expect, it } from 'vitest';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { type LeftSchoolId } from '../../src/core/fingering/left/rules/schools';
import { leftWeights } from '../../src/core/fingering/left/rules/weights';
import { barXml, problemFrom, type TestNote } from '../helpers/music';

interface Fingered extends Placement {
  readonly midi: number;
  readonly onset: number;
  readonly voice: number;
  readonly anchor: number;
}

/** In the order of the notes. */
function fingered(notes: readonly TestNote[], bpm: number, school: LeftSchoolId = 'balanced'): Fingered[] {
  const bare = problemFrom(barXml(notes, bpm));
  const problem = { ...bare, weights: leftWeights(school, bare.hand) };
  const { placements, states } = new LeftPlanner(problem).plan(new Map());
  return notes.map(({ midi, onset, voice = 1 }) => {
    const strike = problem.strikes.find(
      (one) => one.midi === midi && one.onsetTicks === (onset * problem.ticksPerQuarter) / 2,
    )!;
    const moment = problem.moments.findIndex(({ struck }) => struck.includes(strike.index));
    return { midi, onset, voice, ...placements[strike.index]!, anchor: states[moment]!.anchor };
  });
}

const KEYS = [0, 1, 2] as const;
const line = (midis: readonly number[], length = 1, voice = 1, from = 0): TestNote[] =>
  midis.map((midi, k) => ({ midi, onset: from + k * length, length, voice }));
const up = (notes: readonly TestNote[], semitones: number) =>
  notes.map((note) => ({ ...note, midi: note.midi + semitones }));
const spot = ({ string, fret, finger }: Placement) => `${string}/${fret}.${finger}`;
const stringsOf = (notes: readonly Placement[]) => [...new Set(notes.map(({ string }) => string))];

describe.each(KEYS)('%i semitones up', (semitones) => {
  it('a chord and the same chord broken have the same fingers', () => {
    const chord = [54, 62, 66, 69];
    const struck = chord.map((midi) => ({ midi, onset: 0, length: 4 }));
    const broken = line([54, 62, 66, 69, 66, 62], 1, 1, 4);
    const notes = fingered(up([...struck, ...broken], semitones), 90);
    const placeOf = new Map(notes.slice(0, 4).map((note) => [note.midi, spot(note)]));
    for (const note of notes.slice(4)) expect(spot(note)).toBe(placeOf.get(note.midi));
  });

  it('a note that comes again in its figure keeps its place and its finger', () => {
    const figure = [54, 59, 63, 66, 63, 59, 54, 59];
    const notes = fingered(up(line(figure), semitones), 200);
    for (const midi of new Set(notes.map((note) => note.midi)))
      expect(new Set(notes.filter((note) => note.midi === midi).map(spot)).size).toBe(1);
  });

  it('a quick scale that fits one position stays in it, a finger for each fret', () => {
    const scale = [61, 63, 65, 66, 68, 70, 72, 73, 72, 70, 68, 66, 65, 63, 61];
    const notes = fingered(up(line(scale), semitones), 220);
    const stopped = notes.filter(({ fret }) => fret > 0);
    expect(new Set(stopped.map(({ anchor }) => anchor)).size).toBeLessThanOrEqual(2);
    for (const { fret, finger, anchor } of stopped)
      expect(Math.abs(fret - (finger - 1) - anchor)).toBeLessThanOrEqual(1);
  });

  it('a chromatic line goes by four fingers and a shift, no finger slides twice', () => {
    const notes = fingered(up(line([73, 72, 71, 70, 69, 68, 67, 66]), semitones), 160);
    const slides = notes.filter((note, k) => {
      const before = notes[k - 1];
      return before && note.fret > 0 && note.finger === before.finger && note.string === before.string;
    });
    expect(slides.length).toBeLessThanOrEqual(1);
  });

  it('a drone owns its string: the moving voice does not lie there', () => {
    const drone = Array.from({ length: 8 }, (_, k) => ({ midi: 64, onset: 2 * k + 1, length: 1, voice: 1 }));
    const tune = [57, 59, 60, 62, 60, 59, 57, 55].map((midi, k) => ({
      midi: midi + semitones,
      onset: 2 * k,
      length: 1,
      voice: 2,
    }));
    const notes = fingered([...drone, ...tune], 150);
    const droneStrings = stringsOf(notes.filter(({ voice }) => voice === 1));
    expect(droneStrings).toEqual([1]);
    expect(notes.filter(({ voice, string }) => voice === 2 && string === 1)).toEqual([]);
  });

  it('a tune over a barre that lies stays near it, and does not leave its string for a high fret', () => {
    const bars = [0, 6].flatMap((at) => [
      { midi: 45, onset: at, length: 6, voice: 2 },
      ...line([72, 64, 60, 71, 64, 60], 1, 1, at).map((note) => ({ ...note, midi: note.midi })),
    ]);
    const notes = fingered(
      bars.map((note) => (note.voice === 2 ? note : { ...note, midi: note.midi + semitones })),
      120,
    );
    for (const { fret } of notes) expect(fret).toBeLessThanOrEqual(8 + semitones);
  });

  it('4 does not play everything high up: a line in a position uses all fingers by fret', () => {
    const high = [72, 71, 69, 71, 72, 74, 72, 71].map((midi) => midi - 1);
    const notes = fingered(up(line(high, 2), semitones), 120);
    const fours = notes.filter(({ finger }) => finger === 4).length;
    expect(fours).toBeLessThan(notes.length / 2);
  });
});

describe('a school', () => {
  it('that puts guide fingers first keeps more fingers on their strings from chord to chord', () => {
    const chords = [
      [40, 52, 56, 59],
      [45, 52, 57, 61],
      [50, 57, 62, 66],
      [45, 52, 57, 61],
    ].flatMap((chord, k) => chord.map((midi) => ({ midi, onset: 4 * k, length: 4 })));
    const kept = (school: LeftSchoolId) => {
      const notes = fingered(chords, 60, school);
      let count = 0;
      for (let k = 1; k < 4; k++)
        for (const note of notes.filter(({ onset }) => onset === 4 * k))
          if (
            note.finger > 0 &&
            notes.some(
              (before) =>
                before.onset === 4 * (k - 1) &&
                before.finger === note.finger &&
                before.string === note.string,
            )
          )
            count++;
      return count;
    };
    expect(kept('guide-first')).toBeGreaterThan(kept('balanced'));
  });
});
