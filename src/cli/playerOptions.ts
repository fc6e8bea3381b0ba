/** Whose hand, on what instrument, of which school: options that both commands take. */
import { z } from 'zod';
import type { Fretboard } from '../core/instrument/fretboard';
import { type HandProfile, handProfileSchema } from '../core/instrument/handProfile';
import { DEFAULT_PLAYER, maybePlayer, PLAYERS } from '../core/instrument/hands';
import { LEFT_SCHOOL_IDS, type LeftSchoolId } from '../core/fingering/left/rules/schools';
import { NO_WISHES, Planner } from '../core/fingering/planner';
import { RIGHT_SCHOOL_IDS, type RightSchoolId } from '../core/fingering/right/rules/schools';
import { PLAIN_STYLE } from '../core/fingering/right/rules/style';
import type { Score } from '../core/score/model';
import { InputProblem, readOrComplain } from './files';

export interface PlayerOptions {
  readonly hand: HandProfile;
  readonly fretboard: Fretboard;
  readonly school: LeftSchoolId;
  readonly rightSchool: RightSchoolId;
}

const profileSchema = handProfileSchema.partial().extend({
  /** A ready-made hand to start from. */
  like: z.string().optional(),
  scaleLengthMm: z.number().min(400).max(750).optional(),
});

/** @throws InputProblem with the sentence that says what is wrong */
export function readPlayer(
  profilePath: string | undefined,
  school: string,
  rightSchool: string,
): PlayerOptions {
  if (!(RIGHT_SCHOOL_IDS as readonly string[]).includes(rightSchool))
    throw new InputProblem(
      `--right-school: there is no school “${rightSchool}”; there are: ${RIGHT_SCHOOL_IDS.join(', ')}.`,
    );
  if (!(LEFT_SCHOOL_IDS as readonly string[]).includes(school))
    throw new InputProblem(
      `--school: there is no school “${school}”; there are: ${LEFT_SCHOOL_IDS.join(', ')}.`,
    );
  return {
    ...readProfile(profilePath),
    school: school as LeftSchoolId,
    rightSchool: rightSchool as RightSchoolId,
  };
}

/** The planner of a piece for that player. */
export const plannerFor = (score: Score, { hand, fretboard, school, rightSchool }: PlayerOptions): Planner =>
  new Planner(score, fretboard, hand, school, {
    ...NO_WISHES,
    style: { ...PLAIN_STYLE, school: rightSchool },
  });

function readProfile(path: string | undefined): Pick<PlayerOptions, 'hand' | 'fretboard'> {
  if (path === undefined) return DEFAULT_PLAYER;
  let json: unknown;
  try {
    json = JSON.parse(readOrComplain(path, '--profile').toString('utf8'));
  } catch (error) {
    if (error instanceof InputProblem) throw error;
    throw new InputProblem(`--profile ${path}: the file is no JSON; correct it or leave the option out.`);
  }
  const parsed = profileSchema.safeParse(json);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new InputProblem(`--profile ${path}: ${issue.path.join('.') || 'the file'}: ${issue.message}.`);
  }
  const { like, scaleLengthMm, ...fields } = parsed.data;
  const base = like === undefined ? DEFAULT_PLAYER : maybePlayer(like);
  if (!base) {
    const ids = PLAYERS.map(({ hand }) => hand.id).join(', ');
    throw new InputProblem(`--profile ${path}: there is no hand “${like}”; there are: ${ids}.`);
  }
  return {
    hand: { ...base.hand, ...(fields as Partial<HandProfile>) },
    fretboard: { ...base.fretboard, ...(scaleLengthMm === undefined ? {} : { scaleLengthMm }) },
  };
}
