/**
 * The planner against HiGHS (a general-purpose solver of integer programs) on seeded random pieces with held voices,
 * ink and barres: the same least cost, or the same word that nothing can be played. A greedy planner, which takes the
 * cheapest state of each moment, must get most of them wrong, or they would prove little.
 */
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { entryCost, stateCost, transitionCost } from '../../src/core/fingering/left/rules/prices';
import { LeftPlanner } from '../../src/core/fingering/left/lattice/planLeft';
import { LEFT_TERM_IDS } from '../../src/core/fingering/left/rules/terms';
import { follows } from '../../src/core/fingering/left/rules/follows';
import type { LeftWeights } from '../../src/core/fingering/left/rules/weights';
import type { Ink } from '../../src/core/fingering/problem/ink';
import type { FingeringProblem } from '../../src/core/fingering/problem/problem';
import { integerProgram, PRICED_TERMS } from '../helpers/integerProgram';
import { barXml, problemFrom, randomFrom, randomNotes } from '../helpers/music';

const highs = await highsLoader();

const HIGHEST = 68;

interface Instance {
  readonly problem: FingeringProblem;
  readonly ink: Ink;
  readonly barres: boolean;
}

/** Shapes under a barre are priced by more than two places: there these terms rest. */
const NOT_UNDER_BARRES = new Set(['stretch', 'extension', 'contraction', 'order', 'hop', 'hopHaste']);

/** The way up the neck and fingers out of position are dear, so that whoever does not look ahead goes wrong. */
const DEAR_WAYS: Partial<LeftWeights> = { position: 130, opening: 90, squeeze: 60, regrip: 90 };
const DEAR_FINGERS: Partial<LeftWeights> = { hop: 110, lineHop: 150, lineSlide: 110 };

function instance(seed: number): Instance {
  const barres = seed % 3 === 0;
  const random = randomFrom(seed + 5000);
  // Within four frets and short: the program grows fast, the rules stay the same.
  const line = randomNotes(seed, 5).map((note) => ({
    ...note,
    midi: Math.min(note.midi, HIGHEST),
  }));
  const bass = line.find((note) => note.voice === 2)!;
  // A third note beside the bass gives a barre something to do.
  const inner = { ...bass, midi: bass.midi + 10 + (seed % 4) };
  const notes = barres ? [...line, inner] : line;
  const bare = problemFrom(barXml(notes, 60 + (seed % 6) * 20));
  const priced = (id: string) =>
    (PRICED_TERMS as readonly string[]).includes(id) && !(barres && NOT_UNDER_BARRES.has(id));
  // A cheap barre and dear fingers, so that barres are worth laying in music of two voices.
  const cheapBarres: Partial<LeftWeights> = barres ? { barre: 1, barreHold: 1, grip: 90 } : {};
  const weights = {
    ...(Object.fromEntries(
      LEFT_TERM_IDS.map((id) => [id, priced(id) ? bare.weights[id] : 0]),
    ) as LeftWeights),
    ...cheapBarres,
    ...DEAR_WAYS,
    // Up the neck barres are cheapest.
    ...(barres ? { position: 0 } : DEAR_FINGERS),
  };
  const hand = {
    ...bare.hand,
    highestFret: 4,
    barreStringsAtMost: barres ? 4 : 1,
    smallBarreStringsAtMost: 1,
  };
  const problem = { ...bare, hand, weights };
  const ink: Ink = new Map(
    problem.strikes
      .filter(() => random() < 0.15)
      .map(({ uids }) => [uids[0]!, { finger: 1 + Math.floor(random() * 4), string: null, pluck: null }]),
  );
  return { problem, ink, barres };
}

/** Each moment by itself, the cheapest way on from where the hand is. */
function greedyCost({ problem, ink }: Instance): number {
  const { layers } = new LeftPlanner(problem);
  let state = null as (typeof layers)[number]['states'][number] | null;
  let total = 0;
  for (const moment of problem.moments) {
    const fits = layers[moment.index]!.states.filter(
      (to) =>
        (!state || follows(problem, state, to, moment)) &&
        moment.struck.every((strike) => {
          const finger = problem.strikes[strike]!.uids.map((uid) => ink.get(uid)?.finger).find(
            (one) => typeof one === 'number',
          );
          return finger === undefined || to.placements[to.strikes.indexOf(strike)]?.finger === finger;
        }),
    );
    const priced = fits.map((to) => ({
      to,
      cost:
        stateCost(problem, moment, to) +
        (state ? transitionCost(problem, state, moment, to) : entryCost(problem, to)),
    }));
    const best = priced.sort((a, b) => a.cost - b.cost)[0];
    if (!best) return Infinity;
    total += best.cost;
    state = best.to;
  }
  return total;
}

/** As many as there is time for every day; OCULON_PROGRAMS=328 are those of a long run. */
const COUNT = Number(process.env['OCULON_PROGRAMS'] ?? 80);
const BATCHES = 8;

describe('the optimum of the left hand against an integer program (HiGHS)', () => {
  let solved = 0;
  let impossible = 0;
  let greedyWrong = 0;
  let withBarre = 0;
  let inked = 0;

  it.each(Array.from({ length: BATCHES }, (_, batch) => batch))('batch %i', (batch) => {
    for (let seed = batch; seed < COUNT; seed += BATCHES) {
      const one = instance(seed);
      const plan = new LeftPlanner(one.problem).plan(one.ink);
      const answer = highs.solve(integerProgram(one.problem, one.ink, one.barres), {
        mip_rel_gap: 0,
        mip_abs_gap: 0,
      });
      expect(['Optimal', 'Infeasible'], `seed ${seed}: ${answer.Status}`).toContain(answer.Status);
      if (answer.Status === 'Infeasible') {
        expect(plan.conflicts.length, `seed ${seed} cannot be played`).toBeGreaterThan(0);
        impossible++;
        continue;
      }
      expect(plan.conflicts, `seed ${seed}`).toEqual([]);
      expect(plan.cost, `seed ${seed}`).toBe(Math.round(answer.ObjectiveValue));
      solved++;
      if (one.ink.size > 0) inked++;
      if (plan.states.some((state) => state.barre)) withBarre++;
      if (greedyCost(one) > plan.cost) greedyWrong++;
    }
  });

  it('saw held voices, ink, barres and impossible music, and most of it is beyond a greedy planner', () => {
    expect(solved).toBeGreaterThan(0.6 * COUNT);
    expect(solved + impossible).toBe(COUNT);
    expect(inked).toBeGreaterThan(0.25 * COUNT);
    expect(withBarre).toBeGreaterThan(0.02 * COUNT);
    expect(greedyWrong).toBeGreaterThan(solved / 2);
  });
});
