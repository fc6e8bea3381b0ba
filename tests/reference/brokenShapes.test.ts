/**
 * Chords of an open data set of fingerings (@tombatossals/chords-db), broken in the figures that are taught first. A
 * teacher takes such a chord as one grip: each pitch keeps its place, and no finger has two places but under a barre.
 * Source: handbook 13, "Grip". Of chords with a second those are taken whose notes have strings of their own in the first
 * position: there it rings; elsewhere it may be a voice that moves.
 */
import { describe, expect, it } from 'vitest';
import { CHORD_SHAPES, type ChordShape } from '../../calibration/shapes';
import { Planner } from '../../src/core/fingering/planner';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import type { PlannedNote } from '../../src/core/fingering/report/plan';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import { openMidi, STANDARD_TUNING } from '../../src/core/instrument/tuning';
import { barXml, scoreOrThrow, type TestNote } from '../helpers/music';

const { fretboard, hand } = DEFAULT_PLAYER;

/** By note of the chord, the bass first. Common practice. */
const FIGURES: Readonly<Record<string, readonly number[]>> = {
  'p i m a m i m i': [0, 1, 2, 3, 2, 1, 2, 1],
  'p i m a twice': [0, 1, 2, 3, 0, 1, 2, 3],
  'p i m a m a m i': [0, 1, 2, 3, 2, 3, 2, 1],
  'p m i a m i a m': [0, 2, 1, 3, 2, 1, 3, 2],
  'p m i m': [0, 2, 1, 2, 0, 2, 1, 2],
  'p a i m i a i m': [0, 3, 1, 2, 1, 3, 1, 2],
};

const HIGHEST_FRET = 5;
const LEAST_APART = 3;

/** The bass and the three highest notes, from the lowest up; null where a shape has no such. */
function notesOf({ placements }: ChordShape): readonly Placement[] | null {
  if (placements.length < 4 || placements.some(({ fret }) => fret > HIGHEST_FRET)) return null;
  return [placements[0]!, ...placements.slice(-3)];
}

const midiOf = ({ string, fret }: Placement) => openMidi(STANDARD_TUNING, string) + fret;
const gapsOf = (notes: readonly Placement[]) =>
  notes.slice(1).map((note, k) => midiOf(note) - midiOf(notes[k]!));

const isInThirds = (notes: readonly Placement[]) => gapsOf(notes).every((gap) => gap >= LEAST_APART);

/** One second, on the strings where its notes lie lowest. */
const hasSecond = (notes: readonly Placement[]) =>
  gapsOf(notes).filter((gap) => gap < LEAST_APART && gap > 0).length === 1 &&
  gapsOf(notes).every((gap) => gap > 0) &&
  notes.slice(1).every(({ string, fret }) => fret < fretToNext(string));

/** From an open string up to the next one. */
const fretToNext = (string: number) =>
  string === 1 ? Infinity : openMidi(STANDARD_TUNING, string - 1) - openMidi(STANDARD_TUNING, string);

const inOneVoice = (chord: readonly number[], figure: readonly number[]): readonly TestNote[] =>
  figure.map((k, onset) => ({ midi: chord[k]!, onset, length: 1 }));

/** The bass sounds on in a voice of its own until it comes again. */
function overItsBass(chord: readonly number[], figure: readonly number[]): readonly TestNote[] {
  const next = (onset: number) => {
    const at = figure.indexOf(0, onset + 1);
    return at < 0 ? figure.length : at;
  };
  return figure.map((k, onset) =>
    k === 0
      ? { midi: chord[0]!, onset, length: next(onset) - onset, voice: 2 }
      : { midi: chord[k]!, onset, length: 1 },
  );
}

function isOneGrip(notes: readonly TestNote[]): boolean {
  const score = scoreOrThrow(barXml(notes));
  const planned = new Map(
    new Planner(score, fretboard, hand).plan(new Map()).notes.map((note) => [note.uid, note]),
  );
  const placeOf = new Map<number, PlannedNote>();
  return score.notes.every(({ uid, soundingMidi }) => {
    const now = planned.get(uid)!;
    const place = placeOf.get(soundingMidi) ?? now;
    placeOf.set(soundingMidi, place);
    const isKept = place.string === now.string && place.finger === now.finger;
    return isKept && [...placeOf.values()].every((other) => other === place || !isDoubled(other, now));
  });
}

const isDoubled = (a: PlannedNote, b: PlannedNote): boolean =>
  a.finger !== null && a.finger > 0 && a.finger === b.finger && (a.finger > 1 || a.fret !== b.fret);

/** @param every so many of all are taken */
const chordsThat = (are: (notes: readonly Placement[]) => boolean, every: number) =>
  CHORD_SHAPES.flatMap((shape) => {
    const notes = notesOf(shape);
    return notes && are(notes) ? [{ name: shape.name, midis: notes.map(midiOf) }] : [];
  }).filter((_chord, k) => k % every === 0);

describe('chords of the data set, broken', () => {
  it.each([
    ['in one voice', inOneVoice, chordsThat(isInThirds, 18)],
    ['over a bass of their own', overItsBass, chordsThat(isInThirds, 18)],
    ['over a bass of their own, with a second,', overItsBass, chordsThat(hasSecond, 2)],
  ])('%s keep their grip in 97 of 100', (_how, inVoices, chords) => {
    const all = chords.flatMap(({ name, midis }) =>
      Object.entries(FIGURES).map(([figure, steps]) => ({ name, figure, notes: inVoices(midis, steps) })),
    );
    const left = all.filter(({ notes }) => !isOneGrip(notes)).map(({ name, figure }) => `${name}: ${figure}`);
    expect(all.length).toBeGreaterThan(150);
    expect(left.length, left.join('\n')).toBeLessThanOrEqual(0.03 * all.length);
  });
});
