/**
 * What a fingering of both hands comes to, as plain data. From plan to plan nearly all of it stays: what one moment or
 * one strike says is carried over wherever the hands that it depends on are the same.
 */
import type { Figure } from '../../figures/figure';
import type { Score } from '../../score/model';
import { carried } from '../solver/carried';
import { effortByBar, leftCostOf, leftEffortAt, type MomentEffort } from './effort';
import { findingsOf, landingFindings, slurFindings } from './findings';
import { formulaSpans } from '../formulas/recognise';
import type { Ink } from '../problem/ink';
import type { BothHands } from '../dual/planBoth';
import type { HandState } from '../left/rules/handState';
import type { FingeringPlan, PlannedNote } from './plan';
import { barreSpans, plannedNotes, pluckIn } from './plannedNotes';
import type { FingeringProblem } from '../problem/problem';
import { inkedLetters, type InkedLetters } from '../right/lattice/inkedLetters';
import type { Played } from '../right/rules/memory';
import { plannedFigure, type PlannedFigure } from '../right/explain/plannedFigures';
import { type PlannedStroke, strokeReport } from '../right/explain/report';
import { landed, landingsOf, restWanted } from '../right/explain/restStrokes';
import type { RightSetting } from '../right/rules/setting';
import { strumLandings } from '../right/explain/strumLandings';
import { placedAt, type PlacedStrike, strokeGroup } from '../right/rules/strokes';
import { isSameAfter, rightStep, type RightStep } from '../right/explain/walk';
import { ringsReport } from '../../rings/report';
import { endOf, momentsOfStrikes, type Ring, type Sound, soundOf } from '../../rings/ring';
import { handStays, shiftsOf } from './shifts';

/** By moment: the hands, and what follows from them. */
interface Hands {
  readonly inked: InkedLetters;
  readonly states: readonly HandState[];
  readonly played: readonly Played[];
  readonly placed: readonly (readonly PlacedStrike[])[];
  readonly steps: readonly RightStep[];
  readonly efforts: readonly MomentEffort[];
  /** Where a stroke should come to lie, see `restWanted`. */
  readonly wanted: readonly number[];
}

/** What follows by strike, and from what sounds. */
interface Told {
  readonly sounds: readonly Sound[];
  readonly untilTicks: readonly number[];
  readonly notes: readonly (readonly PlannedNote[])[];
  readonly rests: readonly boolean[];
  readonly strokes: readonly (PlannedStroke | null)[];
  readonly figures: readonly PlannedFigure[];
}

export class PlanReport {
  private readonly momentOf: readonly number[];
  private readonly endOfPiece: number;
  private readonly inOrder: readonly number[];
  private last: (Hands & Told) | null = null;

  constructor(
    private readonly problem: FingeringProblem,
    private readonly setting: RightSetting,
    private readonly score: Score,
  ) {
    this.momentOf = momentsOfStrikes(problem);
    this.endOfPiece = endOf(problem);
    this.inOrder = problem.moments.flatMap(({ struck }) => struck);
  }

  of(found: BothHands, ink: Ink): FingeringPlan {
    const { problem, score } = this;
    const hands = this.handsOf(found, inkedLetters(problem, ink));
    const { states, steps } = hands;
    const sounds = this.soundsOf(states);
    const sounding = sounds.map(({ ring }) => ring).filter((ring) => ring !== null);
    const landings = landingsOf(problem, hands.wanted, sounding);
    const rings = landed(sounding, landings);
    const told = this.tell(hands, sounds, rings, new Set(landings.map(({ momentIndex }) => momentIndex)));
    this.last = { ...hands, ...told };
    const notes: PlannedNote[] = [];
    for (const strike of this.inOrder) notes.push(...told.notes[strike]!);
    const shifts = shiftsOf(problem, states);
    const fallen = strumLandings(problem, steps, rings);
    const leftCost = leftCostOf(problem, states, hands.efforts);
    return {
      cost: found.cost,
      lowerBound: found.lowerBound,
      leftCost,
      rightCost: found.cost - leftCost,
      notes,
      barres: barreSpans(problem, states),
      shifts,
      positions: handStays(problem, states),
      rings,
      ringsReport: ringsReport(rings, problem.ticksPerQuarter),
      strokes: told.strokes.filter((stroke) => stroke !== null),
      formulas: formulaSpans(problem, steps),
      figures: told.figures,
      landings: fallen,
      findings: [
        ...findingsOf(problem, score, ink, {
          conflicts: found.conflicts,
          pluckConflicts: this.conflictsOf(hands),
          notes,
          shifts,
          rings,
        }),
        ...slurFindings(problem, states),
        ...landingFindings(fallen),
      ],
      effortByBar: effortByBar(problem, score.measures, hands.efforts, steps),
    };
  }

  private handsOf({ states, played }: BothHands, inked: InkedLetters): Hands {
    const { problem, setting, last } = this;
    const count = problem.moments.length;
    const sameHand = (k: number) => states[k] === last!.states[k] && states[k - 1] === last!.states[k - 1];
    const placed = carried(count, last?.placed ?? null, sameHand, (k) =>
      placedAt(problem, problem.moments[k]!, states[k - 1] ?? null, states[k]!),
    );
    const sameGroup = (k: number) =>
      placed[k] === last!.placed[k] &&
      played[k] === last!.played[k] &&
      inked.keyOf(k) === last!.inked.keyOf(k);
    const steps = carried(
      count,
      last?.steps ?? null,
      (k, made) => sameGroup(k) && made[k - 1] === last!.steps[k - 1],
      (k, made) => {
        const before = made[k - 1] ?? null;
        if (last && sameGroup(k) && isSameAfter(last.steps[k]!, before, problem, k)) return last.steps[k]!;
        const group = inked.adapt(strokeGroup(problem, setting, k, placed[k]!));
        return rightStep(problem, k, before, { group, placed: placed[k]!, played: played[k]! });
      },
    );
    const efforts = carried(count, last?.efforts ?? null, sameHand, (k) => leftEffortAt(problem, states, k));
    const hands = { inked, states, played, placed, steps, efforts };
    return { ...hands, wanted: this.restsWanted(steps) };
  }

  private restsWanted(steps: readonly RightStep[]): Hands['wanted'] {
    const { problem, last } = this;
    if (last && steps === last.steps) return last.wanted;
    const played = steps.map((_step, k) => k).filter((k) => steps[k]!.group.strokes.length > 0);
    const next: number[] = [];
    const previous: number[] = [];
    played.forEach((k, n) => {
      previous[k] = played[n - 1] ?? -1;
      next[k] = played[n + 1] ?? -1;
    });
    const same = (k: number) => steps[k] === last!.steps[k];
    // A neighbour that has not changed plays, so that nothing between has come or gone.
    const sameAround = (k: number) => {
      for (let j = previous[k]! < 0 ? 0 : previous[k]!; j < k; j++) if (!same(j)) return false;
      for (let j = k; j <= (next[k]! < 0 ? steps.length - 1 : next[k]!); j++) if (!same(j)) return false;
      return true;
    };
    return carried(
      steps.length,
      last?.wanted ?? null,
      (k) => previous[k] !== undefined && sameAround(k),
      (k) =>
        previous[k] === undefined
          ? 0
          : restWanted(
              problem,
              steps,
              k,
              previous[k]! < 0 ? undefined : previous[k],
              next[k]! < 0 ? undefined : next[k],
            ),
    );
  }

  /** By strike: it depends on the hands from its own moment until it ends. */
  private soundsOf(states: readonly HandState[]): readonly Sound[] {
    const { problem, momentOf, last } = this;
    // How many hands before a moment are other ones than the last time.
    const others = [0];
    states.forEach((state, k) => others.push(others[k]! + (state === last?.states[k] ? 0 : 1)));
    return carried(
      problem.strikes.length,
      last?.sounds ?? null,
      (strike) => others[last!.sounds[strike]!.until + 1] === others[momentOf[strike]!],
      (strike) => soundOf(problem, states, problem.strikes[strike]!, momentOf[strike]!, this.endOfPiece),
    );
  }

  private tell(
    { states, steps }: Hands,
    sounds: readonly Sound[],
    rings: readonly Ring[],
    landing: ReadonlySet<number>,
  ): Told {
    const { problem, momentOf, last } = this;
    const { strikes, moments } = problem;
    const untilTicks = strikes.map(({ onsetTicks }) => onsetTicks);
    for (const ring of rings) untilTicks[ring.strike] = ring.soundsUntilTicks;
    const notes = carried(
      strikes.length,
      last?.notes ?? null,
      (strike) =>
        sounds[strike] === last!.sounds[strike] &&
        steps[momentOf[strike]!] === last!.steps[momentOf[strike]!] &&
        untilTicks[strike] === last!.untilTicks[strike],
      (strike) => {
        const k = momentOf[strike]!;
        const pluck = pluckIn(steps[k]!, strike);
        return plannedNotes(problem, strike, k, states[k]!, { pluck, untilTicks: untilTicks[strike]! });
      },
    );
    const rests = moments.map((_moment, k) => landing.has(k));
    const strokes = carried(
      moments.length,
      last?.strokes ?? null,
      (k) => steps[k] === last!.steps[k] && rests[k] === last!.rests[k],
      (k) => strokeReport(problem, steps[k]!, k, rests[k]!),
    );
    return { sounds, untilTicks, notes, rests, strokes, figures: this.figuresOf(steps) };
  }

  private figuresOf(steps: readonly RightStep[]): readonly PlannedFigure[] {
    const { problem, setting, last } = this;
    const { figures } = setting.reading;
    const sameSteps = ({ fromMoment, toMoment }: Figure) => {
      for (let k = fromMoment; k <= toMoment; k++) if (steps[k] !== last!.steps[k]) return false;
      return true;
    };
    return carried(
      figures.length,
      last?.figures ?? null,
      (n) => sameSteps(figures[n]!),
      (n) => plannedFigure(problem, figures[n]!, steps),
    );
  }

  /** Strikes that were left out of their group because inked letters contradict each other. */
  private conflictsOf({ inked, placed, steps }: Hands): readonly (readonly number[])[] {
    const asking = placed.map((_strikes, k) => k).filter((k) => inked.keyOf(k) !== '');
    return asking.flatMap((k) => {
      const kept = steps[k]!.group.strokes;
      const asked = strokeGroup(this.problem, this.setting, k, placed[k]!).strokes;
      const left = asked.filter(({ strike }) => !kept.some((one) => one.strike === strike));
      return left.length > 0 ? [left.map(({ strike }) => strike)] : [];
    });
  }
}
