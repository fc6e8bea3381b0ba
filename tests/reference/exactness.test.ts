/**
 * The naive dual check on every demo piece and every calibration passage: all states and all pairs of states are enumerated by plain products;
 * the planner's costs to the end must never be beaten by a step, and must add up to the plan's cost.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, it } from 'vitest';
import { LeftPlanner } from '../../src/core/fingering/left/planLeft';
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
  const problem = problemOf(
    scoreOrThrow(readFileSync(new URL(name, folder), 'utf8')),
    CONCERT_FRETBOARD,
    ADULT_MEDIUM,
  );
  const planner = new LeftPlanner(problem);

  it('left hand: no step beats the costs to the end, and the start has the cost of the plan', () => {
    dualCheck(planner);
  });

  it('right hand: the same', () => {
    const { states } = planner.plan(new Map());
    rightDualCheck(problem, placedOn(problem, states));
  });
});

describe.each(Object.keys(PASSAGES))('calibration passages: %s', (category) => {
  it.each(PASSAGES[category]!.map((passage) => [passage.id, passage] as const))('%s', (_id, passage) => {
    dualCheck(new LeftPlanner(taskOf(passage).problem));
  });
});
