/** Both hands of one piece: the object that a worker, the server or the command line talks to. */
import type { Fretboard } from '../instrument/fretboard';
import type { HandProfile } from '../instrument/handProfile';
import type { Score } from '../score/model';
import { type Ink, NO_INK } from './ink';
import { pickAlternatives } from './alternatives';
import { effortByBar, leftEffortByMoment } from './effort';
import { reasonsBetween, termTotals } from './left/explain';
import type { HandState } from './left/handState';
import { type LeftPlan, LeftPlanner } from './left/planLeft';
import type { Finding, FingeringPlan, LeftChoice, NoteChoices, PlannedBarre, PlannedNote } from './plan';
import { type FingeringProblem, problemOf } from './problem';
import { type RightPlan, RightPlanner } from './right/planRight';
import { soundsUntilTicks } from './rings/soundsUntil';
import { shiftsOf } from './shifts';

/** Reasons worth showing beside a choice, and for how many of them they are worked out. */
const REASONS_SHOWN = 2;
const CHOICES_EXPLAINED = 8;

export class Planner {
  readonly problem: FingeringProblem;
  private readonly left: LeftPlanner;
  private readonly right: RightPlanner;

  constructor(
    private readonly score: Score,
    fretboard: Fretboard,
    hand: HandProfile,
  ) {
    this.problem = problemOf(score, fretboard, hand);
    this.left = new LeftPlanner(this.problem);
    this.right = new RightPlanner(this.problem);
  }

  /** The best fingering around the ink. */
  plan(ink: Ink): FingeringPlan {
    return this.withRightHand(this.left.plan(ink), ink);
  }

  /** Up to `count` other good plans, cheapest left hand first. Only for a piece without ink. */
  alternatives(count: number): readonly FingeringPlan[] {
    const best = this.left.plan(new Map());
    const candidates = this.problem.strikes.flatMap((strike) =>
      this.left.candidates(new Map(), strike.index),
    );
    return pickAlternatives(this.problem, best.states, candidates, count).map((states) => {
      const cost = [...termTotals(this.problem, states).values()].reduce((sum, term) => sum + term, 0);
      return this.withRightHand(
        { ...this.left.planOf(states, best.conflicts), cost, lowerBound: best.cost },
        new Map(),
      );
    });
  }

  private withRightHand(left: LeftPlan, ink: Ink): FingeringPlan {
    const right = this.right.plan(left.placements, ink);
    const notes = plannedNotes(this.problem, left, right);
    const shifts = shiftsOf(this.problem, left.states);
    return {
      cost: left.cost + right.cost,
      lowerBound: left.lowerBound + right.lowerBound,
      leftCost: left.cost,
      rightCost: right.cost,
      notes,
      barres: barreSpans(this.problem, left.states),
      shifts,
      findings: findingsOf(this.problem, left, right, notes, shifts),
      effortByBar: effortByBar(
        this.problem,
        this.score.measures,
        leftEffortByMoment(this.problem, left.states),
        right.costByMoment,
      ),
    };
  }

  /**
   * Every choice for one note with its exact price, so many of them with reasons; its own ink is lifted for the
   * question. Null: no such note.
   */
  choices(ink: Ink, uid: string, explained = CHOICES_EXPLAINED): NoteChoices | null {
    const strike = this.problem.strikes.find((one) => one.uids.includes(uid));
    if (!strike) return null;
    const lifted = new Map(ink);
    for (const own of strike.uids) lifted.set(own, { ...(ink.get(own) ?? NO_INK), pluck: null });
    const right = this.right.plan(this.left.plan(ink).placements, lifted);
    return {
      uid,
      left: this.explained(ink, strike.index, explained),
      right: right.candidates[strike.index]!,
    };
  }

  private explained(ink: Ink, strikeIndex: number, count: number): readonly LeftChoice[] {
    const candidates = this.left.candidates(ink, strikeIndex);
    const best = candidates[0] ? termTotals(this.problem, candidates[0].states()) : new Map();
    return candidates.map(({ place, extraCost, states }, rank) => {
      const reasons =
        rank > 0 && rank < count ? reasonsBetween(best, termTotals(this.problem, states())) : [];
      return { ...place, extraCost, reasons: reasons.slice(0, REASONS_SHOWN) };
    });
  }
}

function plannedNotes(problem: FingeringProblem, left: LeftPlan, right: RightPlan): PlannedNote[] {
  const until = soundsUntilTicks(problem, left.states, left.placements);
  return problem.moments.flatMap((moment) =>
    moment.struck.flatMap((index) => {
      const place = left.placements[index] ?? null;
      const barre = left.states[moment.index]!.barre;
      const note = {
        strike: index,
        momentIndex: moment.index,
        string: place?.string ?? null,
        fret: place?.fret ?? null,
        finger: place?.finger ?? null,
        pluck: right.plucks[index]!,
        barre: barre && place?.finger === 1 ? barre.fret : null,
        soundsUntilTicks: until[index]!,
      };
      return problem.strikes[index]!.uids.map((uid) => ({ uid, ...note }));
    }),
  );
}

/** Neighbouring moments under a barre at one fret are one span. */
function barreSpans(problem: FingeringProblem, states: readonly HandState[]): PlannedBarre[] {
  const spans: PlannedBarre[] = [];
  let open: PlannedBarre | null = null;
  states.forEach((state, k) => {
    const uidAt = (strike: number | undefined) => problem.strikes[strike ?? 0]!.uids[0]!;
    const barre = state.barre;
    const here = problem.moments[k]!.struck;
    if (open && barre?.fret === open.fret) {
      open = {
        fret: open.fret,
        firstString: Math.min(open.firstString, barre.firstString),
        lastString: Math.max(open.lastString, barre.lastString),
        fromUid: open.fromUid,
        toUid: uidAt(here.at(-1)),
      };
      spans[spans.length - 1] = open;
      return;
    }
    open = barre ? { ...barre, fromUid: uidAt(here[0]), toUid: uidAt(here.at(-1)) } : null;
    if (open) spans.push(open);
  });
  return spans;
}

function findingsOf(
  problem: FingeringProblem,
  left: LeftPlan,
  right: RightPlan,
  notes: readonly PlannedNote[],
  shifts: FingeringPlan['shifts'],
): Finding[] {
  const uidsOf = (strikes: readonly number[]) => strikes.flatMap((index) => problem.strikes[index]!.uids);
  const findings: Finding[] = left.conflicts.map((conflict) => ({
    code: conflict.byInk ? 'inkContradicts' : 'unplayable',
    uids: uidsOf(conflict.strikes),
  }));
  for (const strikes of right.conflicts) findings.push({ code: 'pluckContradicts', uids: uidsOf(strikes) });
  for (const shift of shifts) {
    if (shift.risk !== 'tooFast') continue;
    findings.push({
      code: 'shiftTooFast',
      uids: [shift.toUid],
      windowMs: shift.windowMs,
      neededMs: shift.neededMs,
    });
  }
  for (const note of notes) {
    const strike = problem.strikes[note.strike]!;
    const lostTicks = strike.writtenEndTicks - note.soundsUntilTicks;
    if (note.string !== null && lostTicks > 0 && note.uid === strike.uids[0]) {
      findings.push({ code: 'cut', uids: strike.uids, lostQuarters: lostTicks / problem.ticksPerQuarter });
    }
    if (departs(strike.printed, note)) findings.push({ code: 'printedDeparture', uids: [note.uid] });
  }
  return findings;
}

const departs = (printed: FingeringProblem['strikes'][number]['printed'], note: PlannedNote): boolean =>
  (printed.finger !== null && note.finger !== null && printed.finger !== note.finger) ||
  (printed.string !== null && note.string !== null && printed.string !== note.string) ||
  (printed.pluck !== null && note.pluck !== null && printed.pluck !== note.pluck);
