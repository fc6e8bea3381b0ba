/** All marks of a plan at full density, each with its causes, and those of them that a density shows. */
import type { Score } from '../score/model';
import { type Ink, NO_INK } from '../fingering/problem/ink';
import { isStrum } from '../fingering/right/rules/effects';
import type { FingeringPlan, PlannedBarre, PlannedNote } from '../fingering/report/plan';
import type { Role } from '../fingering/problem/strike';
import { barreLabel } from './barreLabel';
import type { MarkCause } from './cause';
import { causesOf, NO_CAUSES, type NoteCauses, type PlanCauses } from './causesOf';
import type { Guide } from './guides';
import type { Mark, MarkKind, MarkState } from './mark';
import { positionMarks } from './positionMarks';
import { type WrittenScore, writtenScore } from './reading/writtenNote';
import { stringMarks } from './stringMarks';
import { type Density, type MarkStyle, PLAIN_MARKS } from './style';

export type MarkAttribute = 'finger' | 'string' | 'pluck';

/** What the marks of a note are read from. */
export interface MarkSource {
  readonly ink: Ink;
  readonly score: Score;
  readonly roles: ReadonlyMap<string, Role>;
  readonly style: MarkStyle;
  readonly stateOf: (note: PlannedNote, attribute: MarkAttribute) => MarkState;
  readonly causesOf: (uid: string) => NoteCauses;
  readonly departs: (note: PlannedNote, attribute: MarkAttribute) => string | null;
}

/** What a plan asks for where nothing has been inked since. */
export interface PlainMarks {
  readonly plan: FingeringPlan;
  readonly planned: ReadonlyMap<string, PlannedNote>;
  readonly causes: PlanCauses;
  readonly written: WrittenScore;
  readonly sourceFor: (ink: Ink) => MarkSource;
  /** Notes whose letter stands at the first of their chord. */
  readonly swept: ReadonlySet<string>;
  /** All but those of the strings, whose runs go over inked notes. */
  readonly marks: readonly Mark[];
}

/** Made once a plan: an edit changes few of them. */
export function plainMarks(
  score: Score,
  plan: FingeringPlan,
  roles: ReadonlyMap<string, Role>,
  style: MarkStyle = PLAIN_MARKS,
): PlainMarks {
  const written = writtenScore(score, plan, roles);
  const causes = causesOf(score, plan, written);
  const printed = new Map(score.notes.map((note) => [note.uid, note.printed]));
  const sourceFor = (ink: Ink): MarkSource => ({
    ink,
    score,
    roles,
    style,
    stateOf: (note, attribute) => {
      if ((ink.get(note.uid) ?? NO_INK)[attribute] !== null) return 'ink';
      const own = printed.get(note.uid)?.[attribute] ?? null;
      return own !== null && own === note[attribute] ? 'printed' : 'pencil';
    },
    causesOf: (uid) => causes.byNote.get(uid) ?? NO_CAUSES,
    departs: (note, attribute) => {
      const own = printed.get(note.uid)?.[attribute] ?? null;
      const shown = ink.get(note.uid)?.[attribute] ?? note[attribute];
      return own === null || shown === null || own === shown ? null : String(own);
    },
  });
  const source = sourceFor(new Map());
  const swept = sweptAlong(plan);
  const planned = new Map(plan.notes.map((note) => [note.uid, note]));
  const marks = [
    ...plan.notes.map((note) => fingerMark(note, source)),
    ...plan.notes.filter(({ uid }) => !swept.has(uid)).flatMap((note) => pluckMark(note, source)),
    ...plan.barres.map((barre) => barreMark(barre, style)),
    ...positionMarks(plan),
    ...touchMarks(written, planned),
    ...causes.guides.map(guideMark),
  ].map(withFile);
  return { plan, planned, causes, written, sourceFor, swept, marks };
}

/** All marks at full density. Ink is shown at once, also before the plan knows of it. */
export function inkedMarks(plain: PlainMarks, ink: Ink): readonly Mark[] {
  const source = plain.sourceFor(ink);
  const marks = plain.marks.flatMap((mark): readonly Mark[] => {
    if (!ink.has(mark.uid) || !BY_NOTE.includes(mark.kind)) return [mark];
    const note = plain.planned.get(mark.uid)!;
    if (mark.kind === 'pluck') return pluckMark(note, source).map(withFile);
    return [withFile(fingerMark(note, source))];
  });
  const silent = [...ink].filter(
    ([uid, { pluck }]) => pluck !== null && (plain.planned.get(uid)?.pluck === null || plain.swept.has(uid)),
  );
  return [
    ...marks,
    // A letter on a note that the plan does not pluck, or has left out.
    ...silent.flatMap(([uid]) => pluckMark(plain.planned.get(uid)!, source).map(withFile)),
    ...stringMarks(plain.plan.notes, source).map(withFile),
  ];
}

/** Notes over which one finger goes with its chord: a brush has one letter, not one for each string. Common practice. */
const sweptAlong = ({ strokes }: FingeringPlan): ReadonlySet<string> =>
  new Set(
    strokes
      .filter(({ effect, letters }) => isStrum(effect) && letters.every((letter) => letter === letters[0]))
      .flatMap(({ uids }) => uids.slice(1)),
  );

const BY_NOTE: readonly MarkKind[] = ['finger', 'unplanned', 'pluck'];

export const marksOf = (
  score: Score,
  plan: FingeringPlan,
  roles: ReadonlyMap<string, Role>,
  { ink = new Map(), style = PLAIN_MARKS }: { readonly ink?: Ink; readonly style?: MarkStyle } = {},
): readonly Mark[] => inkedMarks(plainMarks(score, plan, roles, style), ink);

/** What came with the file stays on the page. */
const withFile = (mark: Mark): Mark =>
  mark.state === 'printed' || mark.departs !== null
    ? { ...mark, causes: [...mark.causes, { code: 'file' }] }
    : mark;

/** At the densities that look at each mark alone. */
export const isShown = (mark: Mark, density: Exclude<Density, 'sparse'>): boolean =>
  density === 'full' || mark.causes.length > 0;

/** A question mark is always worth a sign. */
const OUT_OF_REACH: readonly MarkCause[] = [{ code: 'habit', would: null }];

/** A note that is left out of the plan keeps its ink, or gets a question mark. */
function fingerMark(note: PlannedNote, source: MarkSource): Mark {
  const { ink, roles, stateOf, causesOf: causes, departs } = source;
  const { uid } = note;
  const finger = ink.get(uid)?.finger ?? note.finger;
  const below = roles.get(uid) === 'bass';
  const own = { uid, toUid: uid, below };
  return finger === null
    ? {
        ...own,
        id: `unplanned:${uid}`,
        kind: 'unplanned',
        text: '?',
        state: 'pencil',
        causes: OUT_OF_REACH,
        departs: null,
      }
    : {
        ...own,
        id: `finger:${uid}`,
        kind: 'finger',
        text: String(finger),
        state: stateOf(note, 'finger'),
        causes: note.finger === null ? OUT_OF_REACH : causes(uid).finger,
        departs: departs(note, 'finger'),
      };
}

/** The thumb's letter goes below, whatever its note is, unless the edition has all letters on one side. */
function pluckMark(note: PlannedNote, source: MarkSource): Mark[] {
  const { ink, style, stateOf, causesOf: causes, departs } = source;
  const { uid } = note;
  const text = ink.get(uid)?.pluck ?? note.pluck;
  if (text === null) return [];
  return [
    {
      id: `pluck:${uid}`,
      kind: 'pluck',
      uid,
      toUid: uid,
      text,
      state: stateOf(note, 'pluck'),
      below: style.pluckSide === 'byHand' ? text === 'p' : style.pluckSide === 'below',
      causes: causes(uid).pluck,
      departs: departs(note, 'pluck'),
    },
  ];
}

const barreMark = (barre: PlannedBarre, style: MarkStyle): Mark => ({
  id: `barre:${barre.fromUid}`,
  kind: 'barre',
  uid: barre.fromUid,
  toUid: barre.toUid,
  text: barreLabel(barre, style),
  state: 'pencil',
  below: false,
  causes: [{ code: 'barre' }],
  departs: null,
});

/** A harmonic is written with the fret where it is touched. Source: handbook, "Notation conventions". */
const touchMarks = (written: WrittenScore, planned: ReadonlyMap<string, PlannedNote>): readonly Mark[] =>
  written.moments
    .flat()
    .filter(({ isTouched }) => isTouched)
    .flatMap(({ uid }): readonly Mark[] => {
      const { fret } = planned.get(uid)!;
      if (fret === null) return [];
      const id = `touch:${uid}`;
      const text = `harm. ${fret}`;
      const causes = [{ code: 'touch' }] as const;
      return [
        { id, kind: 'touch', uid, toUid: uid, text, state: 'pencil', below: false, causes, departs: null },
      ];
    });

const guideMark = ({ fromUid, toUid, finger }: Guide): Mark => ({
  id: `guide:${toUid}`,
  kind: 'guide',
  uid: fromUid,
  toUid,
  text: String(finger),
  state: 'pencil',
  below: false,
  causes: [{ code: 'guide' }],
  departs: null,
});
