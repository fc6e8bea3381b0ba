/** Music with the fingerings that teachers accept, as the left hand learns from it. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { type FingeringProblem, problemOf } from '../../src/core/fingering/problem/problem';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { LEFT_SCHOOL_IDS, type LeftSchoolId } from '../../src/core/fingering/left/rules/schools';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { DEFAULT_PLAYER, maybePlayer } from '../../src/core/instrument/hands';
import type { HandProfile } from '../../src/core/instrument/handProfile';

/** What is accepted for a note; null for what is not judged. */
export interface Wanted {
  readonly string: number | null;
  readonly fret: number | null;
  readonly fingers: readonly number[] | null;
}

export interface Lesson {
  readonly id: string;
  readonly family: string;
  /** Equal for lessons with the same notes in the same time. */
  readonly music: string;
  readonly school: LeftSchoolId;
  readonly hand: HandProfile;
  /** Its weights are to be replaced. */
  readonly problem: FingeringProblem;
  /** Each accepted fingering, by strike. */
  readonly accepted: readonly (readonly Wanted[])[];
}

const noteSchema = z.object({
  id: z.union([z.string(), z.number()]),
  string: z.number().nullable(),
  fret: z.number().nullish(),
  finger: z.array(z.number()).nullable(),
});

const expectedSchema = z.object({
  id: z.string(),
  school: z.enum(LEFT_SCHOOL_IDS).nullish(),
  profile: z.string().nullish(),
  notes: z.array(noteSchema),
  alternatives: z.array(z.array(noteSchema)),
});

/** @throws Error for a passage that cannot be read: a mistake in the data */
export function lessonsIn(folder: string, family: string): readonly Lesson[] {
  const set = join(folder, 'passages', family);
  return readdirSync(set)
    .filter((file) => file.endsWith('.expected.json'))
    .sort()
    .map((file) => lessonOf(set, family, JSON.parse(readFileSync(join(set, file), 'utf8'))));
}

function lessonOf(set: string, family: string, json: unknown): Lesson {
  const { id, school, profile, notes, alternatives } = expectedSchema.parse(json);
  const document = readScore(readFileSync(join(set, `${id}.musicxml`), 'utf8'));
  if (!document.ok) throw new Error(`${id}: ${JSON.stringify(document.error)}`);
  const player = profile ? maybePlayer(profile) : DEFAULT_PLAYER;
  if (!player) throw new Error(`${id}: there is no hand “${profile}”`);
  const { score } = document.value;
  const problem = problemOf(score, player.fretboard, player.hand);
  const idOf = new Map(score.notes.map(({ uid, sourceId }) => [uid, sourceId ?? uid]));
  const accepted = [notes, ...alternatives].map((variant) => {
    const byId = new Map(variant.map((note) => [String(note.id), note]));
    return problem.strikes.map(({ uids }): Wanted => {
      const note = uids.map((uid) => byId.get(idOf.get(uid)!)).find((one) => one !== undefined);
      return { string: note?.string ?? null, fret: note?.fret ?? null, fingers: note?.finger ?? null };
    });
  });
  const music = problem.strikes.map(({ midi, onsetTicks }) => `${midi}@${onsetTicks}`).join();
  return { id, family, music, school: school ?? 'balanced', hand: player.hand, problem, accepted };
}

/** Whether a placement is what somebody accepts for its note. */
export const agrees = ({ string, fingers }: Wanted, place: Placement | null): boolean =>
  place !== null &&
  (string === null || place.string === string) &&
  (fingers === null || place.fret === 0 || fingers.includes(place.finger));

/** How many strikes of a fingering no variant that is nearest to it accepts. */
export const missesOf = ({ accepted }: Lesson, placed: readonly (Placement | null)[]): number =>
  Math.min(...accepted.map((variant) => variant.filter((one, k) => !agrees(one, placed[k]!)).length));
