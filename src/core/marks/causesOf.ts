/** Why each finger, letter and string of a plan would be printed by a careful editor. */
import { groupedBy } from '../fingering/problem/groupedBy';
import { FORMULAS } from '../fingering/formulas/formulas';
import type { FingeringPlan, PlannedNote } from '../fingering/report/plan';
import type { Score } from '../score/model';
import { twinNotes } from '../survey/twins';
import type { MarkCause } from './cause';
import { type Guide, guidesOf } from './guides';
import { type NoteReading, readPlan } from './reading/readPlan';
import type { WrittenScore } from './reading/writtenNote';

/** By note; a list is empty where the sign needs not be printed. */
export interface NoteCauses {
  readonly finger: readonly MarkCause[];
  readonly string: readonly MarkCause[];
  readonly pluck: readonly MarkCause[];
}

export const NO_CAUSES: NoteCauses = { finger: [], string: [], pluck: [] };

/** A chord of so many notes is printed with all its fingers or with none. */
const COLUMN = 3;
/** Fingers that alternate are printed for so many notes at least. */
const LEAST_PATTERN = 2;

/** What a plan asks to be printed, and why; the same whatever has been inked. */
export interface PlanCauses {
  readonly guides: readonly Guide[];
  readonly byNote: ReadonlyMap<string, NoteCauses>;
}

export function causesOf(score: Score, plan: FingeringPlan, written: WrittenScore): PlanCauses {
  const guides = guidesOf(plan);
  const readings = readPlan(written, plan);
  const arrivals = arrivalsOf(plan);
  const guided = new Set(guides.flatMap(({ fromUid, toUid }) => [fromUid, toUid]));
  const twins = twinsOtherwise(score, plan);
  const patterns = patternsOf(plan);
  const first = plan.notes.find(({ finger }) => finger)?.momentIndex;
  const causes = new Map<string, NoteCauses>();
  for (const note of plan.notes) {
    const reading = readings.get(note.uid)!;
    const shift: MarkCause[] = arrivals.has(note.uid)
      ? [{ code: 'shift', position: arrivals.get(note.uid)! }]
      : [];
    const begins: MarkCause[] = note.momentIndex === first && note.finger ? [{ code: 'begins' }] : [];
    const guide: MarkCause[] = guided.has(note.uid) ? [{ code: 'guide' }] : [];
    const twin = twins.get(note.uid);
    const pattern = patterns.get(note.uid);
    causes.set(note.uid, {
      finger: [...begins, ...shift, ...guide, ...habitOfFinger(note, reading), ...(twin?.left ?? [])],
      string: [...habitOfString(note, reading), ...shift],
      pluck: [
        ...(pattern ? [{ code: 'pattern', formula: pattern } as const] : []),
        ...(reading.needsLetter ? [{ code: 'habit', would: reading.letter } as const] : []),
        ...(twin?.right ?? []),
      ],
    });
  }
  completeColumns(plan, causes);
  return { guides, byNote: causes };
}

const habitOfFinger = (note: PlannedNote, { needsFinger, place }: NoteReading): MarkCause[] =>
  needsFinger && place?.finger !== note.finger
    ? [{ code: 'habit', would: place ? String(place.finger) : null }]
    : [];

/** A string is worth a sign wherever a student would look for the note on another one. */
const habitOfString = (note: PlannedNote, { needsString, place }: NoteReading): MarkCause[] =>
  needsString || (note.string !== null && place?.string !== note.string)
    ? [{ code: 'habit', would: place && place.string !== note.string ? String(place.string) : null }]
    : [];

/** The stopped notes with which the hand comes to another position. */
function arrivalsOf(plan: FingeringPlan): ReadonlyMap<string, number> {
  const byMoment = groupedBy(plan.notes, ({ momentIndex }) => momentIndex);
  const momentOf = new Map(plan.notes.map((note) => [note.uid, note.momentIndex]));
  return new Map(
    plan.shifts
      .filter(({ jump }) => jump === null)
      .flatMap(({ toUid, toPosition }) =>
        (byMoment.get(momentOf.get(toUid)!) ?? [])
          .filter(({ finger }) => finger)
          .map(({ uid }) => [uid, toPosition] as const),
      ),
  );
}

/** A figure of the right hand: its letters in the order in which they go round, and how many strokes a round has. */
interface Pattern {
  readonly name: string;
  readonly round: number;
  readonly fromMoment: number;
  readonly toMoment: number;
}

/** The first time that a formula or a figure goes round, by note. */
function patternsOf(plan: FingeringPlan): ReadonlyMap<string, string> {
  const formulas = plan.formulas.map(({ formula, fromMoment, toMoment }): Pattern => {
    const letters = FORMULAS.find(({ id }) => id === formula)?.letters ?? [...formula];
    return { name: letters.join(' '), round: letters.length, fromMoment, toMoment };
  });
  const figures = plan.figures
    .filter(({ formula }) => formula.length > 0)
    .map(({ formula, fromMoment, toMoment }): Pattern => {
      return { name: formula.join(' '), round: formula.length, fromMoment, toMoment };
    });
  const patterns = new Map<string, string>();
  const seen = new Set<string>();
  for (const { name, round, fromMoment, toMoment } of [...formulas, ...figures]) {
    if (seen.has(name)) continue;
    seen.add(name);
    const strokes = plan.strokes.filter(
      ({ momentIndex }) => momentIndex >= fromMoment && momentIndex <= toMoment,
    );
    for (const { uids } of strokes.slice(0, Math.max(LEAST_PATTERN, round)))
      for (const uid of uids) patterns.set(uid, name);
  }
  return patterns;
}

/** Where a hand plays the same music otherwise than the first time. */
function twinsOtherwise(score: Score, plan: FingeringPlan) {
  const planned = new Map(plan.notes.map((note) => [note.uid, note]));
  const barOf = new Map(score.notes.map((note) => [note.uid, score.measures[note.measureIndex]!.number]));
  const twins = new Map<
    string,
    { readonly left: readonly MarkCause[]; readonly right: readonly MarkCause[] }
  >();
  for (const [uid, twin] of twinNotes(score)) {
    const [a, b] = [planned.get(uid), planned.get(twin)];
    if (!a || !b) continue;
    const cause: MarkCause = { code: 'twin', bar: barOf.get(twin)! };
    const isOther = a.string !== b.string || a.finger !== b.finger;
    twins.set(uid, { left: isOther ? [cause] : [], right: a.pluck === b.pluck ? [] : [cause] });
  }
  return twins;
}

function completeColumns(plan: FingeringPlan, causes: Map<string, NoteCauses>): void {
  for (const chord of groupedBy(plan.notes, ({ momentIndex }) => momentIndex).values()) {
    if (chord.length < COLUMN) continue;
    if (!chord.some(({ uid, finger }) => finger && causes.get(uid)!.finger.length > 0)) continue;
    for (const { uid, finger } of chord) {
      const own = causes.get(uid)!;
      if (finger !== null && own.finger.length === 0)
        causes.set(uid, { ...own, finger: [{ code: 'column' }] });
    }
  }
}
