/** The marks that are printed as other programs write them: at each note by itself. */
import type { FingeringPlan } from '../fingering/report/plan';
import type { Score } from '../score/model';
import type { Mark } from './mark';

export interface SaidSigns {
  readonly fingers: ReadonlySet<string>;
  /** Every note under the line of a string says it. */
  readonly strings: ReadonlySet<string>;
  readonly letters: ReadonlySet<string>;
  /** Numerals of positions with how long they hold. */
  readonly positions: readonly { readonly fromUid: string; readonly toUid: string; readonly label: string }[];
}

export function saidSigns(marks: readonly Mark[], plan: FingeringPlan, score: Score): SaidSigns {
  const of = (kind: Mark['kind']) =>
    new Set(marks.filter((mark) => mark.kind === kind).map(({ uid }) => uid));
  return {
    fingers: of('finger'),
    strings: new Set(
      marks.filter(({ kind }) => kind === 'string').flatMap((mark) => underLine(mark, plan, score)),
    ),
    letters: of('pluck'),
    positions: marks
      .filter(({ kind }) => kind === 'position')
      .map(({ uid, toUid, text }) => ({ fromUid: uid, toUid, label: text })),
  };
}

/** The notes of its voice from the first to the last that the line goes over. */
function underLine({ uid, toUid }: Mark, { notes }: FingeringPlan, score: Score): readonly string[] {
  if (uid === toUid) return [uid];
  const voiceOf = new Map(score.notes.map((note) => [note.uid, note.voice]));
  const own = notes.filter((note) => voiceOf.get(note.uid) === voiceOf.get(uid)).map((note) => note.uid);
  return own.slice(own.indexOf(uid), own.indexOf(toUid) + 1);
}
