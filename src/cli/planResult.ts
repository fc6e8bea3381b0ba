/** A plan as the JSON that checks outside the project read. Times are in quarter notes from the start. */
import type { FingeringPlan, PlannedNote } from '../core/fingering/report/plan';
import type { FingeringProblem } from '../core/fingering/problem/problem';
import type { HandAction } from '../core/fingering/left/explain/handScript';
import { actionText, remedyText } from '../core/messages/hand';
import { placeOf } from '../core/score/places';
import { startOf } from '../core/fingering/problem/strikes';
import { findingText, noticeText } from '../core/messages/en';
import type { Score, ScoreNote } from '../core/score/model';

/** What the planner has said of a piece, and in how many ms. */
export interface Planned {
  readonly plan: FingeringPlan;
  readonly script: readonly HandAction[];
  readonly alternatives: readonly FingeringPlan[];
  readonly ms: number;
}

export function resultOf(
  score: Score,
  problem: FingeringProblem,
  { plan, script, alternatives, ms }: Planned,
) {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const notesOf = (one: FingeringPlan) =>
    one.notes.map((note) => resultNote(score, noteOf.get(note.uid)!, note));
  const idOf = (uid: string) => noteOf.get(uid)?.sourceId ?? uid;
  const quarters = (ticks: number) => Math.round((ticks / score.ticksPerQuarter) * 1e6) / 1e6;
  const shifts = plan.shifts.map(({ fromUid, toUid, leavesTicks, arrivesTicks, ...shift }) => ({
    ...shift,
    from: idOf(fromUid),
    to: idOf(toUid),
    leaves: quarters(leavesTicks),
    arrives: quarters(arrivesTicks),
  }));
  const findings = plan.findings.map((finding) => {
    const { uids, ...rest } = finding;
    return {
      ...rest,
      ...('remedies' in rest ? { remedies: rest.remedies.map(remedyText) } : {}),
      notes: uids.map(idOf),
      text: findingText(finding),
    };
  });
  return {
    notes: notesOf(plan),
    alternatives: alternatives.map(notesOf),
    cost: plan.cost,
    lowerBound: plan.lowerBound,
    ms: Math.round(ms * 10) / 10,
    shifts,
    damping: [],
    strokes: {
      moves: plan.strokes.filter(({ move }) => move).length,
      crossings: plan.strokes.filter(({ move }) => move?.against).length,
      repeats: plan.strokes.filter(({ again }) => again).length,
      formulas: plan.formulas.map(({ formula, fromUid, strokes, leaving }) => ({
        formula,
        from: idOf(fromUid),
        strokes,
        leaving,
      })),
    },
    figures: plan.figures.map(({ voice, texture, rule, fromTicks, toTicks, formula }) => ({
      voice,
      texture,
      rule,
      from: quarters(fromTicks),
      to: quarters(toTicks),
      formula: formula.join(' '),
    })),
    landings: plan.landings.map(({ effect, ticks, fingers, reference, thereMs, neededMs }) => ({
      effect,
      at: quarters(ticks),
      fingers,
      reference,
      thereMs,
      neededMs,
    })),
    findings,
    rings: plan.ringsReport,
    script: script.map((action) => ({
      at: quarters(action.ticks),
      from: quarters(action.earliestTicks),
      do: action.kind,
      finger: action.finger,
      text: actionText(action, (ticks) => placeOf(score, ticks)),
    })),
    tuning: problem.tuning.id,
    capo: score.capo,
    notices: score.notices.map((notice) => ({ ...notice, text: noticeText(notice) })),
  };
}

function resultNote(score: Score, note: ScoreNote, planned: PlannedNote) {
  const quarters = (ticks: number) => Math.round((ticks / score.ticksPerQuarter) * 1e6) / 1e6;
  const number = score.measures[note.measureIndex]!.number;
  return {
    id: note.sourceId ?? note.uid,
    measure: /^\d+$/.test(number) ? Number(number) : number,
    voice: note.voice,
    onset: quarters(startOf(score, note)),
    midi: note.soundingMidi,
    string: planned.string,
    fret: planned.fret,
    finger: planned.finger,
    pluck: planned.pluck,
    barre: planned.barre,
    soundsUntil: quarters(planned.soundsUntilTicks),
  };
}
