import { describe, expect, it } from 'vitest';
import { problemFrom, randomFrom, randomNotes, barXml } from '../../../../tests/helpers/music';
import { LeftPlanner } from '../left/lattice/planLeft';
import { placeId } from '../left/rules/place';
import { type Ink, NO_INK } from '../problem/ink';
import { plainSetting } from '../right/rules/setting';
import { HandsPlanner } from './handsPlanner';
import { JointPlanner } from './planBoth';

const problemAt = (seed: number) => problemFrom(barXml(randomNotes(seed, 20), 90));

const prepared = (problem: ReturnType<typeof problemAt>, kept?: number) => {
  const left = new LeftPlanner(problem);
  const setting = plainSetting(problem);
  const hands = new HandsPlanner(problem, left, setting, kept);
  const prepare = () => {
    for (const _step of hands.preparing()) continue;
  };
  const anew = (ink: Ink) => new JointPlanner(problem, new LeftPlanner(problem), setting).plan(ink);
  return { left, hands, prepare, anew };
};

/** So little above the best that edits lead beyond it again and again. */
const KEPT_HERE = 40;

describe('edits on the states that still matter', () => {
  let onBase = 0;
  it.each([2, 3, 5, 8])('cost what a planner of all states finds (seed %i)', (seed) => {
    const problem = problemAt(seed);
    const { left, hands, prepare, anew } = prepared(problem, KEPT_HERE);
    hands.current(new Map());
    prepare();
    expect(hands.isPrepared).toBe(true);
    const random = randomFrom(seed);
    let ink: Ink = new Map();
    for (let n = 0; n < 14; n++) {
      const strike = problem.strikes[Math.floor(random() * problem.strikes.length)]!;
      const [uid] = strike.uids;
      const next = new Map(ink);
      if (random() < 0.2) next.delete(uid!);
      else {
        // Mostly what is near, now and then the dearest: beyond what a base can say.
        const choices = left.candidates(ink, strike.index);
        const rank = random() < 0.2 ? choices.length - 1 : Math.floor(random() * 3);
        const { place } = choices[Math.min(rank, choices.length - 1)]!;
        const pluck = random() < 0.4 ? (['p', 'i', 'm'] as const)[Math.floor(random() * 3)]! : null;
        next.set(uid!, { finger: place.finger, string: place.string, pluck });
      }
      ink = next;
      const [found, fresh] = [hands.current(ink), anew(ink)];
      expect(found.cost).toBe(fresh.cost);
      expect(found.lowerBound).toBe(found.cost);
      if (hands.maybePlanSoon(ink)) onBase++;
      if (random() < 0.6) prepare();
    }
  });

  it('are answered on these in good part', () => {
    expect(onBase).toBeGreaterThan(12);
  });

  it('price a choice that is dropped by no more than it costs', () => {
    const problem = problemAt(4);
    const { hands, prepare, anew } = prepared(problem);
    const free: Ink = new Map();
    hands.current(free);
    prepare();
    const best = hands.plan(free);
    let far = 0;
    for (const { index, uids } of problem.strikes.slice(0, 6)) {
      hands.plan(free);
      for (const { place, extraCost, states } of hands.candidates(free, index)) {
        if (states) continue;
        far++;
        const { finger, string } = place;
        const forced = anew(new Map([[uids[0]!, { ...NO_INK, finger, string }]]));
        expect(forced.cost - best.cost).toBeGreaterThanOrEqual(extraCost);
      }
    }
    expect(far).toBeGreaterThan(0);
  });

  it('list every place that all states have', () => {
    const problem = problemAt(6);
    const { left, hands, prepare } = prepared(problem);
    const free: Ink = new Map();
    hands.current(free);
    prepare();
    hands.plan(free);
    const places = (some: readonly { readonly place: Parameters<typeof placeId>[0] }[]) =>
      some.map(({ place }) => placeId(place)).sort((a, b) => a - b);
    for (const { index } of problem.strikes)
      expect(places(hands.candidates(free, index))).toEqual(places(left.candidates(free, index)));
  });
});

describe('a base', () => {
  const edited = (seed: number) => {
    const problem = problemFrom(barXml(randomNotes(seed, 12), 90));
    const { left, hands, prepare, anew } = prepared(problem, 25);
    const random = randomFrom(100 + seed);
    const near = (ink: Ink) => {
      const strike = problem.strikes[Math.floor(random() * problem.strikes.length)]!;
      const choices = left.candidates(ink, strike.index);
      const { finger, string } = choices[Math.min(Math.floor(random() * 3), choices.length - 1)]!.place;
      return new Map(ink).set(strike.uids[0]!, { finger, string, pluck: null });
    };
    return { hands, prepare, anew, near };
  };

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('says nothing beyond what it knows (seed %i)', (seed) => {
    const { hands, prepare, anew, near } = edited(seed);
    hands.current(new Map());
    prepare();
    // The base stays that of the piece without ink, and what is inked grows dearer and dearer.
    let ink: Ink = new Map();
    for (let n = 0; n < 8; n++) {
      ink = near(ink);
      expect(hands.current(ink).cost).toBe(anew(ink).cost);
    }
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('says nothing about less ink than its own (seed %i)', (seed) => {
    const { hands, prepare, anew, near } = edited(seed);
    let ink: Ink = new Map();
    for (let n = 0; n < 4; n++) ink = near(ink);
    hands.current(ink);
    prepare();
    for (const uid of [...ink.keys()]) {
      const less = new Map(ink);
      less.delete(uid);
      expect(hands.current(less).cost).toBe(anew(less).cost);
    }
  });
});

describe('many choices at one moment', () => {
  it('cost on one joint lattice what each costs when it is planned', () => {
    const problem = problemAt(7);
    const { left, hands, anew } = prepared(problem);
    const free: Ink = new Map();
    const best = hands.plan(free);
    let near = 0;
    for (const { index, uids } of problem.strikes) {
      const places = left.candidates(free, index).map(({ place }) => place);
      const letters = ['p', 'i', 'm', 'a'] as const;
      const asked = hands.about(free);
      const [byPlace, byLetter] = [asked.withPlaces(index, places), asked.withLetters(index, letters)];
      byPlace.forEach((found, n) => {
        if (!found || (n + index) % 6 > 0) return;
        near++;
        const { finger, string } = places[n]!;
        expect(found.cost).toBe(anew(new Map([[uids[0]!, { ...NO_INK, finger, string }]])).cost);
        expect(found.cost).toBeGreaterThanOrEqual(best.cost);
      });
      byLetter.forEach((found, n) => {
        if (!found || (index + n) % 8 > 0) return;
        near++;
        expect(found.cost).toBe(anew(new Map([[uids[0]!, { ...NO_INK, pluck: letters[n]! }]])).cost);
      });
    }
    expect(near).toBeGreaterThan(10);
  });
});
