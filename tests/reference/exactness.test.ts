/**
 * The naive dual check on every demo piece and every calibration passage: all states and all pairs of states are
 * enumerated by plain products; the planner's costs to the end must never be beaten by a step, and must add up to the
 * plan's cost. Both hands of the demo pieces under one edit after the other.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { Ink } from '../../src/core/fingering/ink';
import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
import { Planner } from '../../src/core/fingering/planner';
import { problemOf } from '../../src/core/fingering/problem';
import { placedOn } from '../../src/core/fingering/right/strokes';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import { PASSAGES } from '../../calibration/passages/all';
import { taskOf } from '../../calibration/passage';
import { scoreOrThrow } from '../helpers/music';
import { dualCheck } from '../helpers/dualCheck';
import { rightDualCheck } from '../helpers/rightDualCheck';

const folder = new URL('../../demo/', import.meta.url);
const pieces = readdirSync(folder).filter((name) => name.endsWith('.musicxml'));

describe.each(pieces)('%s', (name) => {
  const score = scoreOrThrow(readFileSync(new URL(name, folder), 'utf8'));
  const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const planner = new LeftPlanner(problem);

  it('left hand: no step beats the costs to the end, and the start has the cost of the plan', () => {
    dualCheck(planner);
  });

  it('right hand: the same', () => {
    const { states } = planner.plan(new Map());
    rightDualCheck(problem, placedOn(problem, states));
  });

  it('both hands: after one edit and another the plan is proven, and the same as asked for the first time', () => {
    const plannerFor = () => new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
    const kept = plannerFor();
    const { notes } = kept.plan(new Map());
    const inks = notes
      .filter((_note, k) => k % 3 === 0)
      .map(
        ({ uid, finger }): Ink =>
          new Map([[uid, { finger: finger === 2 ? 3 : 2, string: null, pluck: null }]]),
      );
    inks.forEach((ink, n) => {
      const { cost, lowerBound } = kept.plan(ink);
      expect(lowerBound).toBe(cost);
      if (n % 12 === 0) expect(plannerFor().plan(ink).cost).toBe(cost);
    });
  });
});

describe.each(Object.keys(PASSAGES))('calibration passages: %s', (category) => {
  it.each(PASSAGES[category]!.map((passage) => [passage.id, passage] as const))('%s', (_id, passage) => {
    dualCheck(new LeftPlanner(taskOf(passage).problem));
  });
});
