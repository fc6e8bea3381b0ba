/**
 * Drills by combinatorics, by music theory (`teoria`, a general-purpose library), and by the planner: nothing in any of
 * them that the hand it is made for cannot play.
 */
import { describe, expect, it } from 'vitest';
import teoria from 'teoria';
import { LeftPlanner } from '../fingering/left/lattice/planLeft';
import { Planner } from '../fingering/planner';
import { problemOf } from '../fingering/problem/problem';
import { inkOf } from '../fingering/edition/registers';
import { CONCERT_FRETBOARD } from '../instrument/fretboard';
import { ADULT_MEDIUM, DEFAULT_PLAYER, PLAYERS } from '../instrument/hands';
import { pitchName } from '../music/pitch';
import { type Chosen, chosenOf, type DrillKind } from './drill';
import { drillScore, midiOf } from './drillScore';
import { countsOf } from './counts';
import { maybeTooMuch } from './fits';
import { randomFrom } from '../../../tests/helpers/music';
import { plannerFor } from '../../workers/preparePlan';
import { DRILL_KINDS, maybeDrillKind } from './kinds/all';
import { ordersOf, RIGHT_HAND_ORDERS } from './kinds/rightHandOrders';
import { SCALE_DRILL, SCALES, TONICS } from './kinds/scales';
import { spelled } from './spell';

/** Every value of every parameter once, the others as they are; a typed one, too. */
function sweep(kind: DrillKind): readonly Chosen[] {
  const plain = chosenOf(kind, {});
  return [
    plain,
    ...kind.parameters.flatMap(({ id, values, typed }) => [
      ...values.slice(1).map(([value]) => ({ ...plain, [id]: value })),
      ...(typed ? [{ ...plain, [id]: 'B7' }] : []),
    ]),
  ];
}

describe('the table of drills', () => {
  it('has ids, parameters and values that are unique, and words for each', () => {
    expect(new Set(DRILL_KINDS.map(({ id }) => id)).size).toBe(DRILL_KINDS.length);
    for (const kind of DRILL_KINDS) {
      expect(maybeDrillKind(kind.id)).toBe(kind);
      expect(kind.watch.length).toBeGreaterThanOrEqual(2);
      expect(kind.passes.length).toBeGreaterThanOrEqual(2);
      expect([...kind.ladder].sort((a, b) => a - b)).toEqual(kind.ladder);
      expect(kind.ladder[0]).toBe(60);
      for (const { values } of kind.parameters)
        expect(new Set(values.map(([value]) => value)).size).toBe(values.length);
    }
  });

  it('has no cue twice: each belongs to its kind', () => {
    const cues = DRILL_KINDS.flatMap(({ watch }) => watch);
    expect(new Set(cues).size).toBe(cues.length);
  });

  it('takes the first value for what is not chosen or not known', () => {
    const chosen = chosenOf(SCALE_DRILL, { tonic: 'H', scale: 'chromatic' });
    expect(chosen).toMatchObject({ tonic: 'C', scale: 'chromatic', octaves: '2' });
  });
});

describe.each(DRILL_KINDS.map((kind) => [kind.id, kind] as const))('%s', (_id, kind) => {
  it('is playable by a medium hand whatever is chosen, with the fingering that it prescribes', () => {
    for (const chosen of sweep(kind)) {
      const drill = drillScore(kind, chosen);
      expect([chosen, maybeTooMuch(drill)]).toEqual([chosen, null]);
      const ink = inkOf(drill.registers);
      const { score } = drill.document;
      if (!kind.leaves) expect([chosen, ink.size]).toEqual([chosen, score.notes.length]);
      const plan = plannerFor(score, drill.registers).plan(ink);
      const faults = plan.findings.filter(({ code }) => /unplayable|outside|Contradicts/.test(code));
      expect([chosen, faults]).toEqual([chosen, []]);
      for (const { uid, finger, string, fret } of plan.notes) {
        if (!kind.leaves) expect([finger, string]).toEqual([ink.get(uid)!.finger, ink.get(uid)!.string]);
        const note = score.notes.find((one) => one.uid === uid)!;
        // A natural harmonic sounds by its order, wherever it is touched.
        if (note.harmonic !== 'natural')
          expect(note.soundingMidi).toBe(midiOf({ string: string!, fret: fret! }));
      }
    }
  });

  it('is playable by every other ready-made hand that it says it is for', () => {
    // The medium hand can play all of it, see above.
    let forIt = sweep(kind).length;
    for (const { hand } of PLAYERS.filter((player) => player !== DEFAULT_PLAYER)) {
      for (const chosen of sweep(kind)) {
        const drill = drillScore(kind, { ...chosen, hand: hand.id });
        if (maybeTooMuch(drill)) continue;
        forIt++;
        const { player, document, registers } = drill;
        const { conflicts } = new LeftPlanner(problemOf(document.score, player.fretboard, player.hand)).plan(
          inkOf(registers),
        );
        expect([hand.id, chosen, conflicts]).toEqual([hand.id, chosen, []]);
      }
    }
    // Not one that is made for nobody: most hands can play most of it.
    expect(forIt).toBeGreaterThan(3 * sweep(kind).length);
  });

  it('can be played with any of its values together (random choices)', () => {
    const random = randomFrom(7);
    for (let k = 0; k < 20; k++) {
      const chosen = Object.fromEntries(
        kind.parameters.map(({ id, values }) => [id, values[Math.floor(random() * values.length)]![0]]),
      );
      const drill = drillScore(kind, chosen);
      if (maybeTooMuch(drill)) continue;
      const { player, document, registers } = drill;
      const { conflicts } = new LeftPlanner(problemOf(document.score, player.fretboard, player.hand)).plan(
        inkOf(registers),
      );
      expect([chosen, conflicts]).toEqual([chosen, []]);
    }
  });

  it('is the same whether its link names what is usual or not', () => {
    const chosen = chosenOf(kind, {});
    expect(drillScore(kind, {}).text).toBe(drillScore(kind, chosen).text);
  });
});

/** So many places on. */
const rotated = <T>(row: readonly T[], by: number): readonly T[] =>
  row.map((_, k) => row[(k + by) % row.length]!);

describe('triads', () => {
  const kind = maybeDrillKind('triads')!;
  const QUALITIES = [
    ['major', ''],
    ['minor', 'm'],
    ['diminished', 'dim'],
    ['augmented', 'aug'],
  ] as const;
  it.each(TONICS.map(([name]) => name))('on %s have the notes that teoria gives, spelled so', (root) => {
    for (const [quality, suffix] of QUALITIES) {
      for (const inversion of ['0', '1', '2']) {
        const { document, music } = drillScore(kind, { root, quality, inversion, rightHand: 'strict-im' });
        // Keys of seven accidentals are written in their other spelling.
        if (Math.abs(music.fifths) > 6) continue;
        const played = document.score.notes
          .slice(0, 3)
          .map(({ pitch }) => pitchName(pitch).replace(/\d/, ''));
        const rooted = Number(inversion) === 0 ? played : rotated(played, 3 - Number(inversion));
        const ascii = (text: string) => text.replace(/♯/g, '#').replace(/♭/g, 'b');
        const theirs = teoria.chord(`${ascii(rooted[0]!)}${suffix}`).notes();
        const chroma = (text: string) =>
          teoria.note(`${ascii(text).replace('##', 'x').toLowerCase()}3`).chroma() + 0;
        expect([root, quality, inversion, rooted.map(chroma)]).toEqual([
          root,
          quality,
          inversion,
          theirs.map((note) => note.chroma() + 0),
        ]);
        const letters = rooted.map((text) => 'CDEFGAB'.indexOf(text[0]!));
        // Thirds: every second letter.
        expect([root, quality, letters.map((letter) => (letter - letters[0]! + 7) % 7)]).toEqual([
          root,
          quality,
          [0, 2, 4],
        ]);
      }
    }
  });

  it('have fewer crossings where they are avoided than where i and m take turns', () => {
    const crossings = (rightHand: string) => {
      const { document, registers } = drillScore(kind, { root: 'G', rightHand });
      return countsOf(plannerFor(document.score, registers).plan(new Map()), DEFAULT_PLAYER).crossings;
    };
    expect(crossings('crossing-free')).toBeLessThan(crossings('strict-im'));
  });

  it('begin on any of their notes, and go as far as the neck', () => {
    const classes = ['0', '1', '2'].map((inversion) => {
      const { document } = drillScore(kind, { inversion, octaves: '3' });
      return document.score.notes[0]!.soundingMidi % 12;
    });
    expect(classes).toEqual([0, 4, 7]);
  });
});

describe('barres', () => {
  it('are marked as barres, each over its strings', () => {
    const drill = drillScore(maybeDrillKind('barres')!, {});
    const planner = new Planner(drill.document.score, CONCERT_FRETBOARD, ADULT_MEDIUM);
    const { barres } = planner.plan(inkOf(drill.registers));
    expect(barres.map(({ fret, firstString, lastString }) => [fret, lastString - firstString + 1])).toEqual([
      [5, 2],
      [5, 3],
      [5, 4],
      [5, 5],
    ]);
  });
});

describe('harmonics', () => {
  it('sound 1200 · log2(n) cents above the open string, to the nearest semitone', () => {
    // Source: handbook 3: order 2 an octave, 3 an octave and a fifth, 4 two octaves, 5 two octaves and a third.
    const kind = maybeDrillKind('natural-harmonics')!;
    const above = ['12', '7', '5', '9', '4'].map((nodes) => {
      const { voices } = kind.make(chosenOf(kind, { nodes, strings: '1' }), DEFAULT_PLAYER);
      return voices[0]![0]!.notes[0]!.soundsAbove;
    });
    expect(above).toEqual([12, 19, 24, 28, 28]);
  });
});

describe('orders of the right hand', () => {
  it('are 24, six in each of four columns, and six after the thumb', () => {
    // Source: 4! = 24 and 3! = 6.
    expect(ordersOf('all')).toHaveLength(24);
    expect(new Set(ordersOf('all').map((order) => order.join(''))).size).toBe(24);
    for (const column of ['p', 'i', 'm', 'a']) expect(ordersOf(column)).toHaveLength(6);
    const after = ordersOf('afterThumb').map((order) => order.join(''));
    expect(after.sort()).toEqual(['paim', 'pami', 'piam', 'pima', 'pmai', 'pmia']);
  });

  it('keep each finger on its string', () => {
    const { voices } = RIGHT_HAND_ORDERS.make(chosenOf(RIGHT_HAND_ORDERS, { column: 'all' }), DEFAULT_PLAYER);
    const strings = new Map<string, Set<number>>();
    for (const { notes } of voices[0]!)
      for (const { letter, string } of notes)
        strings.set(letter!, (strings.get(letter!) ?? new Set()).add(string!));
    expect([...strings.values()].map((one) => one.size)).toEqual([1, 1, 1, 1]);
  });
});

describe('scales', () => {
  const THEIRS: Readonly<Record<string, string>> = {
    major: 'major',
    naturalMinor: 'minor',
    harmonicMinor: 'harmonicminor',
    melodicMinor: 'melodicminor',
  };
  it.each(TONICS.map(([name]) => name))('on %s are spelled as teoria spells them', (tonic) => {
    const ascii = tonic.replace('♯', '#').replace('♭', 'b');
    for (const scale of ['major', 'harmonicMinor', 'naturalMinor', 'melodicMinor']) {
      // Keys that would need double sharps or a sixth flat and more are written in their other spelling.
      const drill = drillScore(SCALE_DRILL, { tonic, scale, octaves: '1' });
      const notes = drill.document.score.notes.slice(0, 7);
      const minor = scale !== 'major';
      const [, , major, fifthsMinor] = TONICS.find(([name]) => name === tonic)!;
      const fifths = minor ? fifthsMinor : major;
      if (Math.abs(fifths) > 6) continue;
      const root = spelled(notes[0]!.soundingMidi, fifths);
      const name = `${root.step.toLowerCase()}${root.alter > 0 ? '#' : root.alter < 0 ? 'b' : ''}`;
      const theirs = teoria.note(`${name}3`).scale(THEIRS[scale]!).simple();
      const ours = notes.map(({ pitch }) =>
        pitchName(pitch)
          .replace(/\d/, '')
          .replace('♯♯', 'x')
          .replace('♯', '#')
          .replace('♭', 'b')
          .toLowerCase(),
      );
      expect([ascii, scale, ours]).toEqual([ascii, scale, theirs]);
    }
  });

  it('lie under the hand in every key and form, each finger over its fret or a stretch of one', () => {
    for (const scale of Object.keys(SCALES))
      for (const [tonic] of TONICS)
        for (const octaves of ['1', '2'])
          for (const way of ['position', 'across', 'string']) {
            const chosen = { scale, tonic, octaves, way };
            const { music } = drillScore(SCALE_DRILL, chosen);
            const notes = music.voices[0]!.flatMap(({ notes: all }) => all);
            expect([
              chosen,
              notes.every(({ string, fret }) => string! >= 1 && fret! >= 0 && fret! <= 17),
            ]).toEqual([chosen, true]);
            notes.forEach((note, k) => {
              const before = notes[k - 1];
              if (!before || before.string !== note.string || before.fret === note.fret) return;
              // Up the string with a higher finger; one finger slides by a fret at most, but where the hand moves.
              const up = note.fret! > before.fret!;
              const moves = up ? note.finger! - before.finger! : before.finger! - note.finger!;
              const slides = moves === 0 && Math.abs(note.fret! - before.fret!) === 1;
              const handMoves = note.finger === 1 || before.finger === 1;
              expect([chosen, k, moves > 0 || slides || handMoves]).toEqual([chosen, k, true]);
            });
          }
  });

  it('go up and come back without the top twice', () => {
    const { voices } = SCALE_DRILL.make(chosenOf(SCALE_DRILL, {}), DEFAULT_PLAYER);
    expect(voices[0]).toHaveLength(2 * (2 * SCALES['major']!.length) + 1);
  });
});
