/** The marks that a fingering asks for, before they have a place on the page. */
import type { Score } from '../../score/model';
import { openMidi, STRINGS, tuningOrThrow } from '../../instrument/tuning';
import type { Ink } from '../ink';
import { NO_INK } from '../ink';
import type { FingeringPlan, PlannedBarre, PlannedNote } from '../plan';

/** Whose mark it is: proposed, decided by the teacher, or in the file. */
export type MarkState = 'pencil' | 'ink' | 'printed';

export type MarkKind = 'finger' | 'pluck' | 'string' | 'barre' | 'unplanned';

export interface Mark {
  /** Stable over plans: kind and note. */
  readonly id: string;
  readonly kind: MarkKind;
  readonly uid: string;
  /** The last note that the mark holds for; its own note when it is one note's. */
  readonly toUid: string;
  readonly text: string;
  readonly state: MarkState;
  /** On the side of the bass: below the staff. */
  readonly below: boolean;
}

/** Every finger and letter, the strings that do not follow by themselves, the barres. */
export function marksOf(
  score: Score,
  plan: FingeringPlan,
  ink: Ink,
  voiceOrder: ReadonlyMap<string, 'melody' | 'bass' | 'inner'>,
): readonly Mark[] {
  const printed = new Map(score.notes.map((note) => [note.uid, note.printed]));
  const stateOf = (note: PlannedNote, attribute: 'finger' | 'string' | 'pluck'): MarkState => {
    if ((ink.get(note.uid) ?? NO_INK)[attribute] !== null) return 'ink';
    const own = printed.get(note.uid)?.[attribute] ?? null;
    return own !== null && own === note[attribute] ? 'printed' : 'pencil';
  };
  const marks: Mark[] = [];
  for (const note of plan.notes) {
    const place = { uid: note.uid, toUid: note.uid };
    const bass = voiceOrder.get(note.uid) === 'bass';
    const finger = note.finger ?? ink.get(note.uid)?.finger ?? null;
    if (finger === null)
      marks.push({
        ...place,
        id: `unplanned:${note.uid}`,
        kind: 'unplanned',
        text: '?',
        state: 'pencil',
        below: bass,
      });
    else
      marks.push({
        ...place,
        id: `finger:${note.uid}`,
        kind: 'finger',
        text: String(finger),
        state: stateOf(note, 'finger'),
        below: bass,
      });
    const pluck = note.pluck ?? ink.get(note.uid)?.pluck ?? null;
    if (pluck)
      marks.push({
        ...place,
        id: `pluck:${note.uid}`,
        kind: 'pluck',
        text: pluck,
        state: stateOf(note, 'pluck'),
        below: pluck === 'p',
      });
  }
  const tuning = tuningOrThrow(score.tuningId);
  const plainString = new Map(
    score.notes.map((note) => [
      note.uid,
      STRINGS.find((string) => note.soundingMidi >= openMidi(tuning, string)) ?? 6,
    ]),
  );
  marks.push(...stringMarks(score, plan, ink, plainString, stateOf, voiceOrder));
  return [...marks, ...plan.barres.map(barreMark)];
}

/**
 * A string is marked where it is not the highest one that has the note, once for a run of notes of one voice,
 * and wherever the teacher has inked it.
 */
function stringMarks(
  score: Score,
  plan: FingeringPlan,
  ink: Ink,
  plainString: ReadonlyMap<string, number>,
  stateOf: (note: PlannedNote, attribute: 'string') => MarkState,
  roles: ReadonlyMap<string, 'melody' | 'bass' | 'inner'>,
): Mark[] {
  const voiceOf = new Map(score.notes.map((note) => [note.uid, note.voice]));
  const runs = new Map<string, Mark & { string: number }>();
  const marks = new Map<string, Mark>();
  for (const note of plan.notes) {
    const voice = `${voiceOf.get(note.uid)}`;
    const string = note.string ?? ink.get(note.uid)?.string ?? null;
    const inked = (ink.get(note.uid)?.string ?? null) !== null;
    const needed = string !== null && (string !== plainString.get(note.uid) || inked);
    const run = runs.get(voice);
    if (string === null || !needed) {
      runs.delete(voice);
      continue;
    }
    const state = stateOf(note, 'string');
    if (run && run.string === string && run.state === state) {
      const longer = { ...run, toUid: note.uid };
      runs.set(voice, longer);
      marks.set(run.id, longer);
      continue;
    }
    const bass = roles.get(note.uid) === 'bass';
    const mark = {
      id: `string:${note.uid}`,
      kind: 'string' as const,
      uid: note.uid,
      toUid: note.uid,
      text: String(string),
      state,
      below: bass,
      string,
    };
    runs.set(voice, mark);
    marks.set(mark.id, mark);
  }
  return [...marks.values()];
}

const ROMAN = [
  '',
  'I',
  'II',
  'III',
  'IV',
  'V',
  'VI',
  'VII',
  'VIII',
  'IX',
  'X',
  'XI',
  'XII',
  'XIII',
  'XIV',
  'XV',
  'XVI',
  'XVII',
  'XVIII',
  'XIX',
];

export const roman = (fret: number): string => ROMAN[fret] ?? String(fret);

/** "C V" for a whole barre, "3/6 C V" for three strings. Source: handbook, "Notation conventions". */
export function barreLabel(barre: PlannedBarre): string {
  const strings = barre.lastString - barre.firstString + 1;
  return `${strings >= 5 ? '' : `${strings}/6 `}C ${roman(barre.fret)}`;
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
