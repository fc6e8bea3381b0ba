/**
 * The naive dual check on every demo piece and every calibration passage: all states and all pairs of states are
 * enumerated by plain products; the planner's costs to the end must never be beaten by a step, and must add up to the
 * plan's cost. Both hands of the demo pieces under one edit after the other.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { Ink } from '../../src/core/fingering/problem/ink';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import type { PlannedNote } from '../../src/core/fingering/report/plan';
import { Planner } from '../../src/core/fingering/planner';
import { problemOf } from '../../src/core/fingering/problem/problem';
import { placedOn } from '../../src/core/fingering/right/rules/strokes';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import type { Pluck, Score } from '../../src/core/score/model';
import { PASSAGES } from '../../calibration/passages/all';
import { taskOf } from '../../calibration/passage';
import { scoreOrThrow } from '../helpers/music';
import { dualCheck } from '../helpers/dualCheck';
import { rightDualCheck } from '../helpers/rightDualCheck';

const folder = new URL('../../demo/', import.meta.url);
/** Minutes for each of them: only where somebody has the time, with OCULON_ALL_DEMO set. */
const LONG_PIECES = ['cellar-song', 'lantern-stairs', 'late-ferry', 'rain-on-tin', 'scaffold'];
const pieces = readdirSync(folder).filter(
  (name) =>
    name.endsWith('.musicxml') &&
    (process.env.OCULON_ALL_DEMO || !LONG_PIECES.some((long) => name.startsWith(long))),
);

/** The last two notes of a chord that is not at the beginning, where nothing has been inked. */
function chordOf(notes: readonly PlannedNote[]): readonly string[] | null {
  const last = notes.findLastIndex((note, k) => k > 0 && note.momentIndex === notes[k - 1]!.momentIndex);
  return last < 0 ? null : [notes[last - 1]!.uid, notes[last]!.uid];
}

/** Every pair of states by the rules, or a dozen contradictory letters: slow on a busy machine. */
const SLOW_MS = 360_000;

/** With so many states at a moment only the beginning is walked through by plain products, unless all is asked for. */
const MANY_STATES = 350;
const BARS = 2;

function beginningOf(score: Score): Score {
  const measures = score.measures.slice(0, BARS);
  const last = measures.at(-1)!;
  const end = last.startTicks + last.durationTicks;
  return { ...score, measures, notes: score.notes.filter(({ onsetTicks }) => onsetTicks < end) };
}

describe.each(pieces)('%s', (name) => {
  const score = scoreOrThrow(readFileSync(new URL(name, folder), 'utf8'));
  const problem = problemOf(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
  const planner = new LeftPlanner(problem);

  it(
    'left hand: no step beats the costs to the end, and the start has the cost of the plan',
    () => {
      const whole = process.env.OCULON_ALL_DEMO || planner.stateCounts.every((count) => count < MANY_STATES);
      dualCheck(
        whole ? planner : new LeftPlanner(problemOf(beginningOf(score), CONCERT_FRETBOARD, ADULT_MEDIUM)),
      );
    },
    SLOW_MS,
  );

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

  it(
    'both hands: the same with letters that pile up, some of them contradictory',
    () => {
      const plannerFor = () => new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);
      const kept = plannerFor();
      const { notes } = kept.plan(new Map());
      const other: Readonly<Record<string, Pluck>> = { p: 'i', i: 'm', m: 'a', a: 'm' };
      const inked = notes.filter(({ pluck }, k) => pluck !== null && k % 6 < 2).slice(0, 24);
      let ink: Ink = new Map();
      let contradictions = 0;
      inked.forEach(({ uid, pluck }, n) => {
        ink = new Map(ink).set(uid, { finger: null, string: null, pluck: other[pluck!]! });
        const { cost, lowerBound, findings } = kept.plan(ink);
        expect(lowerBound).toBe(cost);
        if (n % 8 === 7) expect(plannerFor().plan(ink).cost).toBe(cost);
        contradictions = findings.filter(({ code }) => code === 'pluckContradicts').length;
      });
      const twice = chordOf(notes);
      if (!twice) return;
      for (const uid of twice) ink = new Map(ink).set(uid, { finger: null, string: null, pluck: 'm' });
      const plan = kept.plan(ink);
      expect(plan.lowerBound).toBe(plan.cost);
      expect(plan.findings.filter(({ code }) => code === 'pluckContradicts')).toHaveLength(
        contradictions + 1,
      );
    },
    SLOW_MS,
  );
});

describe.each(Object.keys(PASSAGES))('calibration passages: %s', (category) => {
  it.each(PASSAGES[category]!.map((passage) => [passage.id, passage] as const))('%s', (_id, passage) => {
    dualCheck(new LeftPlanner(taskOf(passage).problem));
  });
});
