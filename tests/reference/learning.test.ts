/**
 * What both hands learn from: rivals of accepted fingerings, told term by term. The passage is invented; the accepted
 * letters of the second are wrong on purpose, so that there is something to learn.
 */
import { describe, expect, it } from 'vitest';
import { isSeparatedAlone } from '../../calibration/learning/alone';
import { bestOfBoth, handsFor, NOTHING_INKED, strokeTotals } from '../../calibration/learning/hands';
import { learn } from '../../calibration/learning/learn';
import type { Lesson, Wanted } from '../../calibration/learning/lessons';
import { lookAt } from '../../calibration/learning/rivals';
import { byName, STANDING, startOf } from '../../calibration/learning/weights';
import { HandsPlanner } from '../../src/core/fingering/dual/handsPlanner';
import { termTotals } from '../../src/core/fingering/left/explain/explain';
import { problemOf } from '../../src/core/fingering/problem/problem';
import { PLAIN_STYLE } from '../../src/core/fingering/right/rules/style';
import { DEFAULT_PLAYER } from '../../src/core/instrument/hands';
import type { Pluck } from '../../src/core/score/model';
import { barXml, scoreOrThrow, type TestNote } from '../helpers/music';

const BROKEN = [48, 55, 60, 64, 60, 55, 48, 55];

/** C major broken, with these letters and fingers by note. */
function lessonOf(letters: readonly Pluck[], fingers: readonly number[], midis = BROKEN): Lesson {
  const notes = midis.map((midi, k): TestNote => ({ midi, onset: k, length: 1 }));
  const score = scoreOrThrow(barXml(notes, 120));
  const { fretboard, hand } = DEFAULT_PLAYER;
  const problem = problemOf(score, fretboard, hand);
  const places = { 48: [5, 3], 55: [3, 0], 60: [2, 1], 64: [1, 0] } as const;
  const accepted = problem.strikes.map(({ midi }, k): Wanted => {
    const [string, fret] = places[midi as keyof typeof places];
    return { string, fret, fingers: [fingers[k]!], plucks: [letters[k]!] };
  });
  return {
    id: 'one',
    family: 'any',
    music: 'one',
    school: 'balanced',
    hand,
    style: PLAIN_STYLE,
    score,
    problem,
    accepted: [accepted],
    brokenBy: () => 0,
  };
}

const USUAL: readonly Pluck[] = ['p', 'i', 'm', 'a', 'm', 'i', 'p', 'i'];
/** p takes the third string, too. */
const TURNED: readonly Pluck[] = ['p', 'p', 'i', 'm', 'i', 'p', 'p', 'p'];
const TAUGHT = [3, 0, 1, 0, 1, 0, 3, 0];
const sum = (costs: Iterable<number>) => [...costs].reduce((a, b) => a + b, 0);

describe('a look at a lesson', () => {
  it('finds no rival that both hands prefer where what is taught is planned', () => {
    const { missed, marks, example } = lookAt(lessonOf(USUAL, TAUGHT), STANDING, STANDING);
    expect([missed, marks]).toEqual([0, 8]);
    for (const { above } of example!.rivals) expect(sum(above.values())).toBeGreaterThan(0);
  });

  it('tells in terms of both hands what the planner prefers to other letters and other fingers', () => {
    const { missed, example } = lookAt(lessonOf(TURNED, [4, 0, 1, 0, 1, 0, 4, 0]), STANDING, STANDING);
    // Six letters and the two basses.
    expect(missed).toBe(8);
    const both = example!.rivals.at(-1)!;
    const names = [...both.above].filter(([, cost]) => cost !== 0).map(([name]) => name);
    expect(names.some((name) => name.startsWith('left.'))).toBe(true);
    expect(names.some((name) => name.startsWith('right.'))).toBe(true);
    expect(sum(both.above.values())).toBeLessThan(0);
  });

  it.each([
    ['one figure', BROKEN],
    ['another figure on other strings', [48, 55, 60, 64, 64, 60, 64, 60, 64, 60, 55, 55, 48, 48, 64, 48]],
  ])('adds up: the terms of both hands are what the plan costs (%s)', (_name, midis) => {
    const hands = handsFor(
      lessonOf(
        midis.map(() => 'p'),
        midis.map(() => 0),
        midis,
      ),
      STANDING,
    );
    const best = bestOfBoth(hands);
    const { cost } = new HandsPlanner(hands.problem, hands.left, hands.setting).plan(NOTHING_INKED);
    const told = sum(termTotals(hands.problem, best.states).values());
    expect(told + sum(strokeTotals(hands.problem, best.steps).values())).toBe(cost);
    // Both by themselves and on the way from one to the next, or half of it would go untested.
    if (midis !== BROKEN) {
      expect(sum(best.steps.map(({ own }) => own))).toBeGreaterThan(0);
      expect(sum(best.steps.map(({ way }) => way))).toBeGreaterThan(0);
    }
  });

  it('teaches the right hand again what its weights have lost', () => {
    const down = [64, 60, 55, 64, 60, 55, 64, 60];
    const lesson = lessonOf(['a', 'm', 'i', 'a', 'm', 'i', 'a', 'm'], [0, 1, 0, 0, 1, 0, 0, 1], down);
    // Fingers that move to other strings for next to nothing.
    const lost = { ...STANDING, right: { ...STANDING.right, restation: 0.05 * STANDING.right.restation } };
    expect(lookAt(lesson, STANDING, STANDING).missed).toBe(0);
    expect(lookAt(lesson, lost, lost).missed).toBeGreaterThan(0);
    const { weights } = learn([lesson], lost, () => {});
    expect(lookAt(lesson, weights, lost).missed).toBe(0);
    expect(weights.right.restation).toBeGreaterThan(lost.right.restation);
  });
});

describe('a lesson by itself', () => {
  it('is separated where weights are found for it, and not where no hand can play it', () => {
    expect(isSeparatedAlone(lessonOf(USUAL, TAUGHT))).toBe(true);
    // C over open strings by 2: not what stands, but some weights prefer it.
    const alone = [48, 55, 64, 55, 48, 55, 64, 55];
    const letters = bestOfBoth(handsFor(lessonOf(USUAL, TAUGHT, alone), STANDING)).plucks as readonly Pluck[];
    const bySecond = lessonOf(letters, [2, 0, 0, 0, 2, 0, 0, 0], alone);
    expect(lookAt(bySecond, STANDING, STANDING).missed).toBe(2);
    expect(isSeparatedAlone(bySecond)).toBe(true);
    // 1 two frets above 3.
    expect(isSeparatedAlone(lessonOf(USUAL, [1, 0, 3, 0, 3, 0, 1, 0]))).toBe(false);
  });
});

describe('what is fitted', () => {
  it('starts from numbers set by hand where it is free, and leaves all else', () => {
    const free = ['left.hop', 'right.restation'];
    const [start, standing] = [byName(startOf(free)), byName(STANDING)];
    for (const [name, weight] of Object.entries(start))
      if (!free.includes(name)) expect(weight).toBe(standing[name]);
    expect(start['left.hop']).not.toBe(standing['left.hop']);
  });
});
