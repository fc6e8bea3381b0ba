/** What a student finds in the notation, whatever is printed over it: the order of the notes, voices, slurs, textures. */
import { type Tuning, tuningOrThrow } from '../../instrument/tuning';
import type { Texture } from '../../figures/texture';
import { groupedBy } from '../../fingering/problem/groupedBy';
import type { FingeringPlan } from '../../fingering/report/plan';
import type { Role } from '../../fingering/problem/strike';
import type { Score } from '../../score/model';
import { twinNotes } from '../../survey/twins';

export interface WrittenNote {
  readonly uid: string;
  readonly midi: number;
  readonly voice: string;
  readonly measure: number;
  readonly onsetTicks: number;
  readonly endTicks: number;
  readonly role: Role;
  readonly texture: Texture;
  /** False on the second note of a slur: the slur is printed. */
  readonly plucked: boolean;
  readonly isTouched: boolean;
  /** The same note of the first bar of the same music. */
  readonly twin: string | null;
}

export interface WrittenScore {
  readonly tuning: Tuning;
  /** Notes that begin together, from low to high. */
  readonly moments: readonly (readonly WrittenNote[])[];
}

/** Of the plan only what does not depend on its fingering: which notes begin a sound, when, and which are slurred. */
export function writtenScore(
  score: Score,
  plan: FingeringPlan,
  roles: ReadonlyMap<string, Role>,
): WrittenScore {
  const noteOf = new Map(score.notes.map((note) => [note.uid, note]));
  const twins = twinNotes(score);
  const textures = new Map(
    plan.figures.flatMap(({ uids, texture }) => uids.map((uid) => [uid, texture] as const)),
  );
  const written = ({ uid, pluck }: FingeringPlan['notes'][number]): WrittenNote => {
    const note = noteOf.get(uid)!;
    return {
      uid,
      midi: note.soundingMidi,
      voice: note.voice,
      measure: note.measureIndex,
      onsetTicks: note.onsetTicks,
      endTicks: note.onsetTicks + note.durationTicks,
      role: roles.get(uid) ?? 'inner',
      texture: textures.get(uid) ?? 'mixed',
      plucked: pluck !== null,
      isTouched: note.harmonic === 'natural',
      twin: twins.get(uid) ?? null,
    };
  };
  const moments = groupedBy(plan.notes, ({ momentIndex }) => momentIndex);
  return {
    tuning: tuningOrThrow(score.tuningId),
    moments: [...moments.values()].map((notes) => notes.map(written)),
  };
}
