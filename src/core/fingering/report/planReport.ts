/**
 * What a fingering of both hands comes to, as plain data. From plan to plan nearly all of it stays: what one moment or
 * one strike says is carried over wherever the hands that it depends on are the same.
 */
import type { Score } from '../../score/model';
import { before, Column, here, over } from '../solver/column';
import { effortByBar, leftCostOf, leftEffortOf, type MomentEffort } from './effort';
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
import { fingerStays } from './fingerStays';
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

/** What follows by strike, moment and figure. */
interface Told {
  readonly notes: readonly (readonly PlannedNote[])[];
  readonly strokes: readonly (PlannedStroke | null)[];
  readonly figures: readonly PlannedFigure[];
}

export class PlanReport {
  private readonly momentOf: readonly number[];
  private readonly endOfPiece: number;
  private readonly inOrder: readonly number[];
  private readonly columns = {
    placed: new Column<readonly PlacedStrike[]>(),
    steps: new Column<RightStep>(),
    efforts: new Column<MomentEffort>(),
    wanted: new Column<number>(),
    sounds: new Column<Sound>(),
    notes: new Column<readonly PlannedNote[]>(),
    strokes: new Column<PlannedStroke | null>(),
    figures: new Column<PlannedFigure>(),
  };

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
      fingers: fingerStays(problem, states, this.endOfPiece),
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
    const { problem, setting, columns } = this;
    const count = problem.moments.length;
    const hands = [before(states), here(states)] as const;
    const placed = columns.placed.of(count, hands, (k, last, state) =>
      placedAt(problem, problem.moments[k]!, last, state),
    );
    const letters = problem.moments.map((_moment, k) => inked.keyOf(k));
    const sameAfter = (step: RightStep, last: RightStep | null, k: number) =>
      isSameAfter(step, last, problem, k);
    const steps = columns.steps.of(
      count,
      [here(placed), here(played), here(letters), columns.steps.own(sameAfter)],
      (k, places, how, _letters, last) => {
        const group = inked.adapt(strokeGroup(problem, setting, k, places));
        return rightStep(problem, k, last, { group, placed: places, played: how });
      },
    );
    const efforts = columns.efforts.of(count, hands, (k, last, state) =>
      leftEffortOf(problem, k, last, state),
    );
    return { inked, states, played, placed, steps, efforts, wanted: this.restsWanted(steps) };
  }

  /** What a stroke should come to lie on depends on the strokes around it, and on what lies between. */
  private restsWanted(steps: readonly RightStep[]): Hands['wanted'] {
    const { problem } = this;
    const played = steps.map((_step, k) => k).filter((k) => steps[k]!.group.strokes.length > 0);
    const neighbours = new Map(
      played.map((k, n) => [k, { previous: played[n - 1], next: played[n + 1] }] as const),
    );
    const spanOf = (k: number): readonly [number, number] => {
      const { previous = 0, next = steps.length - 1 } = neighbours.get(k) ?? { previous: k, next: k };
      return [previous, next];
    };
    return this.columns.wanted.of(steps.length, [over(steps, spanOf)], (k, row) => {
      const around = neighbours.get(k);
      return around ? restWanted(problem, row, k, around.previous, around.next) : 0;
    });
  }

  /** By strike: it depends on the hands from its own moment until it ends. */
  private soundsOf(states: readonly HandState[]): readonly Sound[] {
    const { problem, momentOf, endOfPiece } = this;
    const spanOf = (strike: number, { until }: Sound): readonly [number, number] => [
      momentOf[strike]!,
      until,
    ];
    return this.columns.sounds.of(problem.strikes.length, [over(states, spanOf)], (strike, row) =>
      soundOf(problem, row, problem.strikes[strike]!, momentOf[strike]!, endOfPiece),
    );
  }

  private tell(
    { states, steps }: Hands,
    sounds: readonly Sound[],
    rings: readonly Ring[],
    landing: ReadonlySet<number>,
  ): Told {
    const { problem, momentOf, columns } = this;
    const { strikes, moments } = problem;
    const untilTicks = strikes.map(({ onsetTicks }) => onsetTicks);
    for (const ring of rings) untilTicks[ring.strike] = ring.soundsUntilTicks;
    const stepOf = momentOf.map((k) => steps[k]!);
    const notes = columns.notes.of(
      strikes.length,
      [here(sounds), here(stepOf), here(untilTicks), here(momentOf.map((k) => states[k]!))],
      (strike, _sound, step, ticks, state) => {
        const pluck = pluckIn(step, strike);
        return plannedNotes(problem, strike, momentOf[strike]!, state, { pluck, untilTicks: ticks });
      },
    );
    const rests = moments.map((_moment, k) => landing.has(k));
    const strokes = columns.strokes.of(moments.length, [here(steps), here(rests)], (k, step, isRest) =>
      strokeReport(problem, step, k, isRest),
    );
    return { notes, strokes, figures: this.figuresOf(steps) };
  }

  private figuresOf(steps: readonly RightStep[]): readonly PlannedFigure[] {
    const { figures } = this.setting.reading;
    const spanOf = (n: number): readonly [number, number] => [figures[n]!.fromMoment, figures[n]!.toMoment];
    return this.columns.figures.of(figures.length, [over(steps, spanOf)], (n, row) =>
      plannedFigure(this.problem, figures[n]!, row),
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
