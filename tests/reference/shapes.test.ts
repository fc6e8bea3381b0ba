/**
 * Chord shapes against an open data set of fingerings (@tombatossals/chords-db, 2,069 shapes; those with sound
 * fingers are taken). For the given strings and frets, on shapes that were not used in fitting.
 */
import { describe, expect, it } from 'vitest';
import { CHORD_SHAPES, checkingShapes, type ChordShape } from '../../calibration/shapes';
import { playable } from '../../src/core/fingering/left/rules/constraints';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { Ink } from '../../src/core/fingering/problem/ink';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { openMidi, STANDARD_TUNING } from '../../src/core/instrument/tuning';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { barXml, problemFrom, randomFrom } from '../helpers/music';

const midiOf = ({ string, fret }: Placement) => openMidi(STANDARD_TUNING, string) + fret;
const fingersOf = (places: readonly Placement[]) =>
  [...places]
    .sort((a, b) => b.string - a.string)
    .map((place) => place.finger)
    .join('');

/** The planner's own states of the chord on these strings, cheapest first; equal prices in its own order. */
function ranked({ placements }: ChordShape): readonly string[] {
  const notes = placements.map((place) => ({ midi: midiOf(place), onset: 0, length: 4 }));
  const problem = problemFrom(barXml(notes));
  const [layer] = new LeftPlanner({ ...problem, hand: { ...ADULT_MEDIUM, highestFret: 19 } }).layers;
  const fretOf = new Map(placements.map((place) => [place.string, place.fret]));
  return layer!.states
    .map((state, s) => ({ state, cost: layer!.stateCost[s]! }))
    .filter(({ state }) => state.placements.every(({ string, fret }) => fretOf.get(string) === fret))
    .filter(({ state }) => state.placements.length === placements.length)
    .sort((a, b) => a.cost - b.cost)
    .map(({ state }) => fingersOf(state.placements));
}

describe('chord shapes of the data set', () => {
  it('are its first choice in 80 % and among its three cheapest in 95 %', () => {
    // A pitch that is doubled shares one stop in the planner, so the shape is another one there.
    const shapes = checkingShapes.filter(
      ({ placements }) => new Set(placements.map(midiOf)).size === placements.length,
    );
    expect(shapes.length).toBeGreaterThan(1200);
    const ranks = shapes.map((shape) => {
      const rank = ranked(shape).indexOf(fingersOf(shape.placements));
      return rank < 0 ? Infinity : rank;
    });
    const share = (count: number) => ranks.filter((rank) => rank < count).length / ranks.length;
    expect(share(1)).toBeGreaterThanOrEqual(0.8);
    expect(share(3)).toBeGreaterThanOrEqual(0.95);
  });
});

interface Mutant {
  readonly kind: 'crossed' | 'openUnderBarre' | 'overReach';
  readonly places: readonly Placement[];
}

const swapped = (places: readonly Placement[], a: number, b: number): readonly Placement[] =>
  places.map((place) =>
    place.finger === a ? { ...place, finger: b } : place.finger === b ? { ...place, finger: a } : place,
  );

/** Shapes made wrong in one way each. */
function mutantsOf({ placements }: ChordShape, random: () => number): readonly Mutant[] {
  const mutants: Mutant[] = [];
  const fretOf = new Map(
    placements.filter(({ finger }) => finger > 0).map(({ finger, fret }) => [finger, fret]),
  );
  const used = [...fretOf.keys()].sort();
  for (const a of used)
    for (const b of used)
      if (a < b && fretOf.get(a)! < fretOf.get(b)!)
        mutants.push({ kind: 'crossed', places: swapped(placements, a, b) });
  const barred = placements.filter(({ finger }) => finger === 1).map(({ string }) => string);
  const inside = placements.filter(
    ({ string, finger }) => finger !== 1 && string > Math.min(...barred) && string < Math.max(...barred),
  );
  if (barred.length > 1 && inside.length > 0) {
    const open = inside[Math.floor(random() * inside.length)]!;
    mutants.push({
      kind: 'openUnderBarre',
      places: placements.map((place) => (place === open ? { ...place, fret: 0, finger: 0 } : place)),
    });
  }
  const last = used.at(-1);
  if (used.length > 1 && last !== undefined)
    mutants.push({
      kind: 'overReach',
      // Five frets and more beyond one fret for each finger: over 150 mm below fret 10.
      places: placements.map((place) => (place.finger === last ? { ...place, fret: place.fret + 6 } : place)),
    });
  return mutants;
}

describe('wrong shapes', () => {
  const random = randomFrom(11);
  const mutants = CHORD_SHAPES.filter(
    ({ placements }) =>
      placements.every(({ fret }) => fret <= 6) && playable(placements, CONCERT_FRETBOARD, ADULT_MEDIUM),
  ).flatMap((shape) => mutantsOf(shape, random));

  it('are all refused: crossed fingers, an open string under a barre, over-reach', () => {
    expect(mutants.length).toBeGreaterThan(500);
    for (const kind of ['crossed', 'openUnderBarre', 'overReach'] as const) {
      const own = mutants.filter((mutant) => mutant.kind === kind);
      expect(own.length, kind).toBeGreaterThan(kind === 'openUnderBarre' ? 30 : 200);
      const accepted = own.filter(({ places }) => playable(places, CONCERT_FRETBOARD, ADULT_MEDIUM));
      expect(
        accepted.map(({ places }) => JSON.stringify(places)),
        kind,
      ).toEqual([]);
    }
  });

  it('as ink are reported by the planner, never forced', () => {
    let asked = 0;
    for (const { places } of mutants.filter((_one, k) => k % 12 === 0)) {
      if (new Set(places.map(midiOf)).size < places.length) continue;
      const byPitch = [...places].sort((a, b) => midiOf(a) - midiOf(b));
      const problem: FingeringProblem = problemFrom(
        barXml(byPitch.map((place) => ({ midi: midiOf(place), onset: 0, length: 4 }))),
      );
      const ink: Ink = new Map(
        byPitch.map(({ finger, string }, k) => [`n${k + 1}`, { finger, string, pluck: null }]),
      );
      const { conflicts } = new LeftPlanner(problem).plan(ink);
      expect(conflicts.length, JSON.stringify(places)).toBeGreaterThan(0);
      asked++;
    }
    expect(asked).toBeGreaterThan(60);
  });
});
