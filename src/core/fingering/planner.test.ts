import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { scoreOrThrow } from '../../../tests/helpers/music';
import { CONCERT_FRETBOARD } from '../instrument/fretboard';
import { ADULT_MEDIUM } from '../instrument/hands';
import type { Ink } from './problem/ink';
import type { NoteChoices, RightChoice } from './report/plan';
import { Planner } from './planner';

const xml = readFileSync(new URL('../../../demo/weir-etude.musicxml', import.meta.url), 'utf8');
const score = scoreOrThrow(xml);
const plannerFor = () => new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM);

function exactly(planner: Planner, ink: Ink, uid: string): NoteChoices {
  const asking = planner.exactChoices(ink, uid, 1);
  for (;;) {
    const { done, value } = asking.next();
    if (done) return value!;
  }
}

describe('letters of one note', () => {
  const planner = plannerFor();
  const none: Ink = new Map();
  const plan = planner.plan(none);
  const uids = plan.notes.filter(({ pluck }, k) => pluck !== null && k % 7 === 0).map(({ uid }) => uid);
  const asked = uids.map((uid) => {
    const onStrings = planner.choices(none, uid)!.right;
    return { uid, onStrings, exact: exactly(planner, none, uid).right };
  });
  const priceOf = (choices: readonly RightChoice[], letter: string) =>
    choices.find(({ pluck }) => pluck === letter)!.extraCost;

  it('cost what a new planner finds with each of them inked', () => {
    for (const { uid, exact } of asked.filter((_one, k) => k % 4 === 0)) {
      for (const { pluck, extraCost } of exact) {
        const marks = { finger: null, string: null, pluck };
        expect(plannerFor().plan(new Map([[uid, marks]])).cost - plan.cost).toBe(extraCost);
      }
    }
  });

  it('cost no more than on the strings of the plan, and less where other strings are better for them', () => {
    let less = 0;
    for (const { onStrings, exact } of asked) {
      expect(exact.map(({ pluck }) => pluck).sort()).toEqual(onStrings.map(({ pluck }) => pluck).sort());
      expect(exact[0]!.extraCost).toBe(0);
      for (const { pluck, extraCost, strings } of exact) {
        const before = priceOf(onStrings, pluck);
        expect(extraCost).toBeLessThanOrEqual(before);
        if (extraCost === before) continue;
        less++;
        expect(strings.length).toBeGreaterThan(0);
      }
    }
    expect(less).toBeGreaterThan(3);
  });

  it('are asked about without their own ink', () => {
    const { uid, exact } = asked[1]!;
    const inked: Ink = new Map([[uid, { finger: null, string: null, pluck: exact.at(-1)!.pluck }]]);
    expect(exactly(planner, inked, uid).right).toEqual(exact);
  });
});

describe('other takes', () => {
  const planner = plannerFor();
  const plan = planner.plan(new Map());
  const takes = planner.alternatives(2);

  it('are the best of both hands with some other string or finger, the cheapest first', () => {
    expect(takes.length).toBe(2);
    expect(takes[0]!.cost).toBeGreaterThanOrEqual(plan.cost);
    expect(takes[1]!.cost).toBeGreaterThanOrEqual(takes[0]!.cost);
    for (const take of takes) {
      expect(take.lowerBound).toBe(take.cost);
      const others = take.notes.filter(
        ({ string, finger }, k) => string !== plan.notes[k]!.string || finger !== plan.notes[k]!.finger,
      );
      const again = others.some(({ uid, string, finger }) => {
        const marks = { string, finger, pluck: null };
        return planner.plan(new Map([[uid, marks]])).cost === take.cost;
      });
      expect(again).toBe(true);
    }
  });

  it('are other ones for more than a moment', () => {
    for (const take of takes) {
      const moved = take.notes.filter(({ string }, k) => string !== plan.notes[k]!.string);
      const stays = JSON.stringify(take.positions) === JSON.stringify(plan.positions);
      expect(moved.length > 1 || !stays).toBe(true);
    }
  });
});

describe('words about choices of the left hand', () => {
  it('name no way of the hand that is none', () => {
    const piece = scoreOrThrow(
      readFileSync(new URL('../../../demo/lantern-stairs.musicxml', import.meta.url), 'utf8'),
    );
    const planner = new Planner(piece, CONCERT_FRETBOARD, ADULT_MEDIUM);
    const none: Ink = new Map();
    const uids = planner
      .plan(none)
      .notes.slice(0, 12)
      .map(({ uid }) => uid);
    const words = uids.flatMap((uid) => planner.choices(none, uid)!.left.flatMap((choice) => choice.words));
    const ways = words.filter((word) => word.code === 'shift');
    expect(ways.length).toBeGreaterThan(3);
    for (const { distanceMm } of ways) expect(Math.round(distanceMm)).toBeGreaterThan(0);
  });
});
