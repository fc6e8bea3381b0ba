/** Passages with the fingerings that teachers accept: read where they lie, planned as each of them asks. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { z } from 'zod';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import { DEFAULT_PLAYER, maybePlayer } from '../../src/core/instrument/hands';
import { LEFT_SCHOOL_IDS } from '../../src/core/fingering/left/rules/schools';
import type { FingeringPlan } from '../../src/core/fingering/report/plan';
import { NO_WISHES, Planner } from '../../src/core/fingering/planner';
import { RIGHT_SCHOOL_IDS } from '../../src/core/fingering/right/rules/schools';
import { PLAIN_STYLE } from '../../src/core/fingering/right/rules/style';
import type { Score } from '../../src/core/score/model';

const expectedSchema = z.object({
  id: z.string(),
  school: z.enum(LEFT_SCHOOL_IDS).nullish(),
  rightSchool: z.enum(RIGHT_SCHOOL_IDS).nullish(),
  profile: z.string().nullish(),
});

/** The folder with the shared passages and their scorer; null where the project lies alone. */
export function maybeJudgementFolder(): string | null {
  const folder = process.env.OCULON_JUDGEMENT ?? resolve('../shared/judgement');
  return existsSync(join(folder, 'score.mjs')) ? folder : null;
}

export const familiesIn = (folder: string): readonly string[] => readdirSync(join(folder, 'passages')).sort();

export interface JudgedPassage {
  readonly id: string;
  readonly score: Score;
  readonly planner: Planner;
}

/** @throws Error for a passage that cannot be read: a mistake in the data */
export function passagesOf(folder: string, family: string): readonly JudgedPassage[] {
  const set = join(folder, 'passages', family);
  return readdirSync(set)
    .filter((file) => file.endsWith('.expected.json'))
    .sort()
    .map((file) => {
      const expected = expectedSchema.parse(JSON.parse(readFileSync(join(set, file), 'utf8')));
      return passageOf(set, expected);
    });
}

function passageOf(set: string, expected: z.infer<typeof expectedSchema>): JudgedPassage {
  const { id, school, rightSchool, profile } = expected;
  const document = readScore(readFileSync(join(set, `${id}.musicxml`), 'utf8'));
  if (!document.ok) throw new Error(`${id}: ${JSON.stringify(document.error)}`);
  const player = profile ? maybePlayer(profile) : DEFAULT_PLAYER;
  if (!player) throw new Error(`${id}: there is no hand “${profile}”`);
  const { score } = document.value;
  const style = { ...PLAIN_STYLE, school: rightSchool ?? PLAIN_STYLE.school };
  const planner = new Planner(score, player.fretboard, player.hand, school ?? 'balanced', {
    ...NO_WISHES,
    style,
  });
  return { id, score, planner };
}

/** What the scorer reads of a result. */
export function resultNotes(score: Score, plan: FingeringPlan) {
  const idOf = new Map(score.notes.map(({ uid, sourceId }) => [uid, sourceId ?? uid]));
  return plan.notes.map(({ uid, string, fret, finger, pluck }) => ({
    id: idOf.get(uid)!,
    string,
    fret,
    finger,
    pluck,
  }));
}

/** A passage's row as the scorer gives it: agreements are pairs of right and judged. */
export interface ScoredRow {
  readonly id: string;
  readonly string: readonly [number, number];
  readonly finger: readonly [number, number];
  readonly pluck: readonly [number, number];
  readonly facts: readonly [number, number];
  readonly wholeLeft: boolean | null;
  readonly wholeRight: boolean | null;
}

/** What a passage asserts, as the scorer reads it. */
export type Fact = Readonly<Record<string, unknown>>;
export type ResultNote = ReturnType<typeof resultNotes>[number];

export interface Scorer {
  readonly scoreSet: (setDir: string, resultDir: string) => readonly ScoredRow[];
  /** Whether a fact holds; null where it cannot be judged. */
  readonly judge: (
    fact: Fact,
    order: readonly string[],
    notes: ReadonlyMap<string, ResultNote>,
  ) => boolean | null;
}

export const scorerIn = async (folder: string): Promise<Scorer> =>
  (await import(/* @vite-ignore */ pathToFileURL(join(folder, 'score.mjs')).href)) as Scorer;
