/** What the teacher should look at in a plan: cuts, hasty shifts, slurs that cannot be, contradictory ink. */
import { isPick, type Score } from '../../score/model';
import type { Ink } from '../problem/ink';
import type { HandState } from '../left/rules/handState';
import type { LeftPlan } from '../left/lattice/planLeft';
import type { Finding, FingeringPlan, PlannedNote } from './plan';
import type { FingeringProblem } from '../problem/problem';
import {
  remediesForCut,
  remediesForInk,
  remediesForMoment,
  remediesForOutside,
  remediesForSlur,
} from './remedies';
import { placementsOf } from '../left/rules/placements';
import type { Strike } from '../problem/strike';
import { lowestMidi, openMidi } from '../../instrument/tuning';
import { midiName } from '../../music/pitch';
import { checkSlurs } from '../slurs/check';

/** What of a plan is looked through. */
export interface Looked
  extends Pick<LeftPlan, 'conflicts'>, Pick<FingeringPlan, 'notes' | 'shifts' | 'rings'> {
  /** Strikes whose inked letters cannot be played together. */
  readonly pluckConflicts: readonly (readonly number[])[];
}

export function findingsOf(
  problem: FingeringProblem,
  score: Score,
  ink: Ink,
  { conflicts, pluckConflicts, notes, shifts, rings }: Looked,
): Finding[] {
  const uidsOf = (strikes: readonly number[]) => strikes.flatMap((index) => problem.strikes[index]!.uids);
  const endOf = new Map(rings.map((ring) => [ring.strike, ring.end]));
  const findings: Finding[] = conflicts.map(({ strikes, byInk }) => {
    const uids = uidsOf(strikes);
    const strike = problem.strikes[strikes[0]!]!;
    if (strikes.length === 1 && placementsOf(problem, strike).length === 0)
      return outsideFinding(problem, score, strike);
    if (byInk) return { code: 'inkContradicts', uids, remedies: remediesForInk(uids, ink) };
    const moment = problem.moments.find(({ struck }) => struck.includes(strikes[0]!))!;
    return { code: 'unplayable', uids, remedies: remediesForMoment(problem, score, moment, strikes) };
  });
  for (const strikes of pluckConflicts) findings.push({ code: 'pluckContradicts', uids: uidsOf(strikes) });
  for (const shift of shifts) {
    if (shift.risk !== 'tooFast') continue;
    findings.push({
      code: 'shiftTooFast',
      uids: [shift.toUid],
      windowMs: shift.windowMs,
      neededMs: shift.neededMs,
      jump: shift.jump,
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

/** A note that no string has. */
function outsideFinding(problem: FingeringProblem, score: Score, strike: Strike): Finding {
  const lowest = lowestMidi(problem.tuning);
  const highest = openMidi(problem.tuning, 1) + problem.hand.highestFret;
  return {
    code: 'outside',
    uids: strike.uids,
    lowest: midiName(lowest),
    highest: midiName(highest),
    remedies: remediesForOutside(problem, score, strike),
  };
}

/** What is wrong with the slurs that the music asks for; weak ones are only priced. */
export const slurFindings = (problem: FingeringProblem, states: readonly HandState[]): Finding[] =>
  checkSlurs(problem, states).flatMap(({ fault, uids }): Finding[] =>
    fault === null || fault === 'weak'
      ? []
      : [{ code: 'slurFault', uids: [...uids].reverse(), fault, remedies: remediesForSlur(uids[1]) }],
  );

/** Hands that come down later after a strum than the music waits. */
export const landingFindings = (landings: FingeringPlan['landings']): Finding[] =>
  landings
    .filter(({ thereMs, neededMs }) => thereMs < neededMs)
    .map(({ uid, thereMs, neededMs }) => ({ code: 'landingTooFast', uids: [uid], thereMs, neededMs }));

const departs = (printed: FingeringProblem['strikes'][number]['printed'], note: PlannedNote): boolean =>
  (printed.finger !== null && note.finger !== null && printed.finger !== note.finger) ||
  (printed.string !== null && note.string !== null && printed.string !== note.string) ||
  // What a plectrum played is no departure where fingers play.
  (printed.pluck !== null &&
    note.pluck !== null &&
    printed.pluck !== note.pluck &&
    isPick(printed.pluck) === isPick(note.pluck));
