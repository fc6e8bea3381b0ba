/** Music with the fingerings that teachers accept, as both hands learn from it. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { type FingeringProblem, problemOf } from '../../src/core/fingering/problem/problem';
import type { Placement } from '../../src/core/fingering/left/rules/place';
import { LEFT_SCHOOL_IDS, type LeftSchoolId } from '../../src/core/fingering/left/rules/schools';
import { RIGHT_SCHOOL_IDS } from '../../src/core/fingering/right/rules/schools';
import { PLAIN_STYLE, type RightStyle } from '../../src/core/fingering/right/rules/style';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { DEFAULT_PLAYER, maybePlayer } from '../../src/core/instrument/hands';
import type { Fact, ResultNote, Scorer } from '../judgement/passages';
import { type Pluck, PLUCKS, type Score } from '../../src/core/score/model';
import type { HandProfile } from '../../src/core/instrument/handProfile';

/** What is accepted for a note; null for what is not judged. */
export interface Wanted {
  readonly string: number | null;
  readonly fret: number | null;
  readonly fingers: readonly number[] | null;
  readonly plucks: readonly Pluck[] | null;
}

export interface Lesson {
  readonly id: string;
  readonly family: string;
  /** Equal for lessons with the same notes in the same time. */
  readonly music: string;
  readonly school: LeftSchoolId;
  readonly hand: HandProfile;
  readonly style: RightStyle;
  readonly score: Score;
  /** Its weights are to be replaced. */
  readonly problem: FingeringProblem;
  /** Each accepted fingering, by strike. */
  readonly accepted: readonly (readonly Wanted[])[];
  /** How many facts of the left hand a fingering breaks, by strike. */
  readonly brokenBy: (placed: readonly (Placement | null)[]) => number;
}

const noteSchema = z.object({
  id: z.union([z.string(), z.number()]),
  string: z.number().nullable(),
  fret: z.number().nullish(),
  finger: z.array(z.number()).nullable(),
  pluck: z.array(z.enum(PLUCKS)).nullish(),
});

const expectedSchema = z.object({
  id: z.string(),
  school: z.enum(LEFT_SCHOOL_IDS).nullish(),
  rightSchool: z.enum(RIGHT_SCHOOL_IDS).nullish(),
  profile: z.string().nullish(),
  notes: z.array(noteSchema),
  alternatives: z.array(z.array(noteSchema)),
  asserts: z.array(z.custom<Fact>((value) => typeof value === 'object')).default([]),
});

/** Facts that speak of letters are the right hand's. */
const RIGHT_FACTS = ['letters', 'alternate', 'thumbNotes', 'noThumb', 'crossings', 'anyOf'];

/** @throws Error for a passage that cannot be read: a mistake in the data */
export function lessonsIn(folder: string, family: string, scorer: Scorer): readonly Lesson[] {
  const set = join(folder, 'passages', family);
  return readdirSync(set)
    .filter((file) => file.endsWith('.expected.json'))
    .sort()
    .map((file) => lessonOf(set, family, JSON.parse(readFileSync(join(set, file), 'utf8')), scorer));
}

function lessonOf(set: string, family: string, json: unknown, { judge }: Scorer): Lesson {
  const { id, school, rightSchool, profile, notes, alternatives, asserts } = expectedSchema.parse(json);
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
      const { string = null, fret = null, finger: fingers = null, pluck: plucks = null } = note ?? {};
      return { string, fret, fingers, plucks };
    });
  });
  const order = notes.map((note) => String(note.id));
  const facts = asserts.filter((fact) => !RIGHT_FACTS.some((kind) => kind in fact));
  const brokenBy = (placed: readonly (Placement | null)[]): number => {
    const noteOf = new Map(
      problem.strikes.flatMap(({ uids, index }) => {
        const place = placed[index];
        return uids.map((uid): readonly [string, ResultNote] => {
          const noteId = idOf.get(uid)!;
          const { string = null, fret = null, finger = null } = place ?? {};
          return [noteId, { id: noteId, string, fret, finger, pluck: null }];
        });
      }),
    );
    return facts.filter((fact) => judge(fact, order, noteOf) === false).length;
  };
  const music = problem.strikes.map(({ midi, onsetTicks }) => `${midi}@${onsetTicks}`).join();
  const style = { ...PLAIN_STYLE, school: rightSchool ?? PLAIN_STYLE.school };
  const asked = { school: school ?? ('balanced' as const), hand: player.hand, style };
  return { id, family, music, ...asked, score, problem, accepted, brokenBy };
}

/** Whether a placement is what somebody accepts for its note. */
export const agrees = ({ string, fingers }: Wanted, place: Placement | null): boolean =>
  place !== null &&
  (string === null || place.string === string) &&
  (fingers === null || place.fret === 0 || fingers.includes(place.finger));

/** Whether a letter is what somebody accepts for its note. */
export const agreesLetter = ({ plucks }: Wanted, pluck: Pluck | null): boolean =>
  plucks === null || (pluck !== null && plucks.includes(pluck));

type Variant = readonly Wanted[];
type Placements = readonly (Placement | null)[];
type Letters = readonly (Pluck | null)[];

export const placesMissed = (variant: Variant, placed: Placements): number =>
  variant.filter((one, k) => !agrees(one, placed[k]!)).length;

export const lettersMissed = (variant: Variant, plucks: Letters): number =>
  variant.filter((one, k) => !agreesLetter(one, plucks[k]!)).length;

/** How many strikes of a fingering no variant that is nearest to it accepts. */
export const missesOf = ({ accepted }: Lesson, placed: Placements): number =>
  Math.min(...accepted.map((variant) => placesMissed(variant, placed)));

/** The same for both hands. */
export const missesOfBoth = (
  { accepted }: Lesson,
  { placements, plucks }: { readonly placements: Placements; readonly plucks: Letters },
): number =>
  Math.min(...accepted.map((variant) => placesMissed(variant, placements) + lettersMissed(variant, plucks)));
