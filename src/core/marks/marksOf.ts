/** All marks of a plan at full density: every finger and letter, the strings that need saying, the barres. */
import type { Score } from '../score/model';
import { type Ink, NO_INK } from '../fingering/problem/ink';
import type { FingeringPlan, PlannedBarre, PlannedNote } from '../fingering/report/plan';
import type { Role } from '../fingering/problem/strike';
import { barreLabel } from './barreLabel';
import type { Mark, MarkState } from './mark';
import { stringMarks } from './stringMarks';

export type MarkAttribute = 'finger' | 'string' | 'pluck';

/** What the marks of a note are read from. */
export interface MarkSource {
  readonly ink: Ink;
  readonly score: Score;
  readonly roles: ReadonlyMap<string, Role>;
  readonly stateOf: (note: PlannedNote, attribute: MarkAttribute) => MarkState;
}

export function marksOf(
  score: Score,
  plan: FingeringPlan,
  ink: Ink,
  roles: ReadonlyMap<string, Role>,
): readonly Mark[] {
  const printed = new Map(score.notes.map((note) => [note.uid, note.printed]));
  const stateOf = (note: PlannedNote, attribute: MarkAttribute): MarkState => {
    if ((ink.get(note.uid) ?? NO_INK)[attribute] !== null) return 'ink';
    const own = printed.get(note.uid)?.[attribute] ?? null;
    return own !== null && own === note[attribute] ? 'printed' : 'pencil';
  };
  const source: MarkSource = { ink, score, roles, stateOf };
  return [
    ...plan.notes.map((note) => fingerMark(note, source)),
    ...plan.notes.flatMap((note) => pluckMark(note, source)),
    ...stringMarks(plan.notes, source),
    ...plan.barres.map(barreMark),
  ];
}

/** A note that is left out of the plan keeps its ink, or gets a question mark. */
function fingerMark(note: PlannedNote, { ink, roles, stateOf }: MarkSource): Mark {
  const { uid } = note;
  const finger = note.finger ?? ink.get(uid)?.finger ?? null;
  const below = roles.get(uid) === 'bass';
  return finger === null
    ? { id: `unplanned:${uid}`, kind: 'unplanned', uid, toUid: uid, text: '?', state: 'pencil', below }
    : {
        id: `finger:${uid}`,
        kind: 'finger',
        uid,
        toUid: uid,
        text: String(finger),
        state: stateOf(note, 'finger'),
        below,
      };
}

/** The thumb's letter goes below, whatever its note is. */
function pluckMark(note: PlannedNote, { ink, stateOf }: MarkSource): Mark[] {
  const { uid } = note;
  const text = note.pluck ?? ink.get(uid)?.pluck ?? null;
  if (text === null) return [];
  return [
    {
      id: `pluck:${uid}`,
      kind: 'pluck',
      uid,
      toUid: uid,
      text,
      state: stateOf(note, 'pluck'),
      below: text === 'p',
    },
  ];
}

const barreMark = (barre: PlannedBarre): Mark => ({
  id: `barre:${barre.fromUid}`,
  kind: 'barre',
  uid: barre.fromUid,
  toUid: barre.toUid,
  text: barreLabel(barre),
  state: 'pencil',
  below: false,
});
