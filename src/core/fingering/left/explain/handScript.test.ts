import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, randomNotes, type TestNote } from '../../../../../tests/helpers/music';
import type { Ink } from '../../problem/ink';
import { playable } from '../rules/constraints';
import { LeftPlanner } from '../lattice/planLeft';
import { asBlocks, type HandAction, handScript } from './handScript';

const scriptOf = (notes: readonly TestNote[], places: readonly string[], bpm = 90): readonly HandAction[] => {
  const problem = problemFrom(barXml(notes, bpm));
  const ink: Ink = new Map(
    places.map((text, k) => {
      const [finger, string] = text.split('@').map(Number);
      return [`n${k + 1}`, { finger: finger!, string: string!, pluck: null }];
    }),
  );
  const plan = new LeftPlanner(problem).plan(ink);
  expect(plan.conflicts).toEqual([]);
  return handScript(problem, plan.states);
};
const note = (midi: number, onset: number, length = 1): TestNote => ({ midi, onset, length });
const of = (script: readonly HandAction[], finger: number) =>
  script.filter((action) => action.finger === finger).map(({ kind, ticks }) => `${kind}@${ticks}`);

// Source: handbook, "Looking ahead".
describe('the script of the hand', () => {
  it('a finger that comes back to its place stays down, under a higher finger on its string', () => {
    // C4, D4, C4 on the second string.
    const script = scriptOf([note(60, 0), note(62, 1), note(60, 2)], ['1@2', '3@2', '1@2']);
    expect(of(script, 1)).toEqual(['place@0', 'stay@2', 'lift@3']);
    // 3 was free and lies towards the body of a sounding stop: it may not go down before its note.
    expect(of(script, 3)).toEqual(['place@1', 'lift@2']);
  });
  it('going down, the lower finger is planted with the upper one', () => {
    // D4 by 3, C4 by 1: 1 lies nutwards of the sounding stop and silences nothing.
    const script = scriptOf([note(67, 0, 2), note(62, 2, 2), note(60, 4, 2)], ['4@1', '3@2', '1@2']);
    const first = script.find((action) => action.finger === 1 && action.kind !== 'lift')!;
    expect(first.kind).toBe('prepare');
    expect(first.earliestTicks).toBe(0);
    expect(first.ticks).toBe(4);
  });
  it('an open string that sounds keeps its finger waiting', () => {
    const script = scriptOf([note(59, 0, 2), note(60, 2, 2)], ['0@2', '1@2']);
    expect(script[0]).toMatchObject({ kind: 'place', finger: 1, ticks: 2, earliestTicks: 2 });
  });
  it('a guide slides along its string when the hand moves', () => {
    const script = scriptOf([note(67, 0, 2), note(72, 2, 2)], ['1@1', '1@1']);
    expect(script.find((action) => action.kind === 'slide')).toMatchObject({
      finger: 1,
      fromFret: 3,
      grip: { fret: 8 },
    });
  });
  it('a barre is laid from the tip, and hinges when a string under it must sound', () => {
    const script = scriptOf(
      [
        { midi: 72, onset: 0, length: 4 },
        { midi: 64, onset: 2, length: 2 },
        { midi: 60, onset: 2, length: 2 },
      ],
      ['4@1', '1@2', '1@3'],
    );
    expect(script.some((action) => action.kind === 'barre')).toBe(true);
  });
  it('blocks put fingers down together that could lie already', () => {
    const notes = [note(48, 0, 8), note(52, 2, 6), note(60, 4, 4)];
    const script = scriptOf(notes, ['3@5', '2@4', '1@2']);
    expect(asBlocks(script).map((block) => block.actions.length)).toEqual([3]);
  });
  it('no finger is told to lie early where the hand could not hold it', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const problem = problemFrom(barXml(randomNotes(seed, 10), 100));
      const { states } = new LeftPlanner(problem).plan(new Map());
      for (const action of handScript(problem, states)) {
        expect(action.earliestTicks).toBeLessThanOrEqual(action.ticks);
        if (action.kind !== 'prepare' && action.kind !== 'place') continue;
        for (const moment of problem.moments) {
          if (moment.tick < action.earliestTicks || moment.tick >= action.ticks) continue;
          const { placements } = states[moment.index]!;
          const { firstString: string, fret } = action.grip;
          // It may lie behind a stop on its string; everywhere else both must fit one hand.
          const rest = placements.filter((place) => place.string !== string);
          expect(placements.every((place) => place.string !== string || place.fret > fret)).toBe(true);
          expect(
            playable([...rest, { string, fret, finger: action.finger }], problem.fretboard, problem.hand),
          ).toBe(true);
        }
      }
    }
  });
});
