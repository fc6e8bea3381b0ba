/** Both hands of one piece: the object that a worker, the server or the command line talks to. */
import type { Fretboard } from '../instrument/fretboard';
import type { HandProfile } from '../instrument/handProfile';
import type { Score } from '../score/model';
import { type Ink, NO_INK } from './ink';
import { pickAlternatives } from './alternatives';
import { effortByBar, leftEffortByMoment } from './effort';
import { reasonsBetween, termTotals } from './left/explain';
import { holdsOther, reasonsAgainst } from './left/reasons';
import { type HandAction, handScript } from './left/script/handScript';
import type { HandState } from './left/handState';
import { type LeftPlan, LeftPlanner } from './left/planLeft';
import type { Finding, FingeringPlan, LeftChoice, NoteChoices, PlannedBarre, PlannedNote } from './plan';
import { type FingeringProblem, problemOf } from './problem';
import type { LeftSchoolId } from './left/schools';
import { leftWeights } from './left/weights';
import { type RightPlan, RightPlanner } from './right/planRight';
import { remediesForCut, remediesForInk, remediesForMoment } from './remedies';
import { ringsReport } from './rings/report';
import { type Ring, ringsOf } from './rings/ring';
import { handStays, shiftsOf } from './shifts';

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
    school: LeftSchoolId = 'balanced',
  ) {
    this.problem = problemOf(score, fretboard, hand, leftWeights(school, hand));
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

  /** What the left hand does, step by step, in the best fingering around the ink. */
  script(ink: Ink): readonly HandAction[] {
    return handScript(this.problem, this.left.plan(ink).states);
  }

  private withRightHand(left: LeftPlan, ink: Ink): FingeringPlan {
    const right = this.right.plan(left.placements, ink);
    const rings = ringsOf(this.problem, left.states, left.placements);
    const notes = plannedNotes(this.problem, left, right, rings);
    const shifts = shiftsOf(this.problem, left.states);
    return {
      cost: left.cost + right.cost,
      lowerBound: left.lowerBound + right.lowerBound,
      leftCost: left.cost,
      rightCost: right.cost,
      notes,
      barres: barreSpans(this.problem, left.states),
      shifts,
      positions: handStays(this.problem, left.states),
      rings,
      ringsReport: ringsReport(rings, this.problem.ticksPerQuarter),
      findings: findingsOf(this.problem, this.score, ink, left, right, notes, shifts, rings),
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
    const { problem } = this;
    const candidates = this.left.candidates(ink, strikeIndex);
    const [first, ...others] = candidates.slice(0, count);
    const k = problem.moments.findIndex((moment) => moment.struck.includes(strikeIndex));
    const bestStates = first?.states() ?? [];
    const best = first ? termTotals(problem, bestStates) : new Map();
    // What speaks for the best choice is what speaks against the nearest other finger on its string.
    const onItsString = candidates.slice(1).filter(({ place }) => place.string === first?.place.string);
    const isHeld = ({ place }: (typeof candidates)[number]) =>
      holdsOther(problem, bestStates, k, place.finger);
    const rival = onItsString.find(isHeld) ?? onItsString[0] ?? others[0];
    return candidates.map(({ place, extraCost, states }, rank) => {
      if (rank >= count) return { ...place, extraCost, reasons: [], words: [] };
      if (rank === 0) {
        const words = rival ? reasonsAgainst(problem, bestStates, rival.states(), k, rival.place.finger) : [];
        return { ...place, extraCost, reasons: [], words };
      }
      const other = states();
      return {
        ...place,
        extraCost,
        reasons: reasonsBetween(best, termTotals(problem, other)).slice(0, REASONS_SHOWN),
        words: reasonsAgainst(problem, bestStates, other, k, place.finger),
      };
    });
  }
}

function plannedNotes(
  problem: FingeringProblem,
  left: LeftPlan,
  right: RightPlan,
  rings: readonly Ring[],
): PlannedNote[] {
  const until = problem.strikes.map((strike) => strike.onsetTicks);
  for (const ring of rings) until[ring.strike] = ring.soundsUntilTicks;
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
  score: Score,
  ink: Ink,
  left: LeftPlan,
  right: RightPlan,
  notes: readonly PlannedNote[],
  shifts: FingeringPlan['shifts'],
  rings: readonly Ring[],
): Finding[] {
  const uidsOf = (strikes: readonly number[]) => strikes.flatMap((index) => problem.strikes[index]!.uids);
  const endOf = new Map(rings.map((ring) => [ring.strike, ring.end]));
  const findings: Finding[] = left.conflicts.map(({ strikes, byInk }) => {
    const uids = uidsOf(strikes);
    if (byInk) return { code: 'inkContradicts', uids, remedies: remediesForInk(uids, ink) };
    const moment = problem.moments.find(({ struck }) => struck.includes(strikes[0]!))!;
    return { code: 'unplayable', uids, remedies: remediesForMoment(problem, score, moment, strikes) };
  });
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
      findings.push({
        code: 'cut',
        uids: strike.uids,
        lostQuarters: lostTicks / problem.ticksPerQuarter,
        end: endOf.get(strike.index) ?? 'released',
        remedies: remediesForCut(problem, strike, note.soundsUntilTicks),
      });
    }
    if (departs(strike.printed, note)) findings.push({ code: 'printedDeparture', uids: [note.uid] });
  }
  return findings;
}

const departs = (printed: FingeringProblem['strikes'][number]['printed'], note: PlannedNote): boolean =>
  (printed.finger !== null && note.finger !== null && printed.finger !== note.finger) ||
  (printed.string !== null && note.string !== null && printed.string !== note.string) ||
  (printed.pluck !== null && note.pluck !== null && printed.pluck !== note.pluck);
