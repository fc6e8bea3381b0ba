/**
 * Facts as inequalities: a fact that holds in every accepted fingering is kept where the cheapest plan that breaks it
 * costs more than the cheapest accepted one. Plans are looked for among the best one and those in which one note that
 * the fact names is played otherwise: necessary, not sufficient.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { type Ink, type InkMarks, NO_INK } from '../../src/core/fingering/problem/ink';
import type { FingeringPlan } from '../../src/core/fingering/report/plan';
import { PLUCKS, type Pluck } from '../../src/core/score/model';
import { settled } from './settled';
import { type Fact, type JudgedPassage, passagesOf, resultNotes, type Scorer } from '../judgement/passages';

export interface FactsKept {
  readonly kept: number;
  readonly all: number;
  /** Passages with a fact that is not, and how many. */
  readonly broken: readonly (readonly [id: string, count: number])[];
}

const noteSchema = z.object({
  id: z.union([z.string(), z.number()]),
  string: z.number().nullable(),
  fret: z.number().nullish(),
  finger: z.array(z.number()).nullable(),
  pluck: z.array(z.enum(PLUCKS)).nullish(),
});
type Expected = z.infer<typeof noteSchema>;

const expectedSchema = z.object({
  notes: z.array(noteSchema),
  alternatives: z.array(z.array(noteSchema)),
  asserts: z.array(z.custom<Fact>((value) => typeof value === 'object')).default([]),
});

const NONE: Ink = new Map();

export function factsKept(folder: string, family: string, scorer: Scorer): FactsKept {
  const set = join(folder, 'passages', family);
  const files = new Map(
    readdirSync(set)
      .filter((file) => file.endsWith('.expected.json'))
      .map((file) => [file.replace('.expected.json', ''), join(set, file)]),
  );
  const rows = passagesOf(folder, family).map((passage) => {
    const expected = expectedSchema.parse(JSON.parse(readFileSync(files.get(passage.id)!, 'utf8')));
    const order = expected.notes.map(({ id }) => String(id));
    return { id: passage.id, ...keptIn(passage, expected, order, scorer) };
  });
  return {
    kept: rows.reduce((sum, { kept }) => sum + kept, 0),
    all: rows.reduce((sum, { all }) => sum + all, 0),
    broken: rows.filter(({ kept, all }) => kept < all).map(({ id, kept, all }) => [id, all - kept] as const),
  };
}

function keptIn(
  passage: JudgedPassage,
  { notes, alternatives, asserts }: z.infer<typeof expectedSchema>,
  order: readonly string[],
  { judge }: Scorer,
): { readonly kept: number; readonly all: number } {
  const { planner, score } = passage;
  const isKeptBy = (fact: Fact, plan: FingeringPlan) =>
    judge(fact, order, new Map(resultNotes(score, plan).map((note) => [String(note.id), note])));
  const best = planner.plan(NONE);
  const judged = asserts.filter((fact) => isKeptBy(fact, best) !== null);
  const accepted = Math.min(
    ...[notes, ...alternatives].map((variant) => acceptedCost(passage, variant) ?? Infinity),
  );
  const above = accepted - best.cost;
  const kept = judged.filter((fact) => {
    if (isKeptBy(fact, best) !== true) return false;
    return others(passage, notesIn(fact, order), above).every((plan) => isKeptBy(fact, plan) === true);
  });
  return { kept: kept.length, all: judged.length };
}

/** Ids that a fact names, ranges of them written out. */
function notesIn(fact: unknown, order: readonly string[]): readonly string[] {
  if (Array.isArray(fact)) return fact.flatMap((one) => notesIn(one, order));
  if (typeof fact === 'object' && fact !== null)
    return Object.values(fact).flatMap((one) => notesIn(one, order));
  if (typeof fact !== 'string') return [];
  const range = /^n(\d+)-n(\d+)$/.exec(fact);
  if (!range) return order.includes(fact) ? [fact] : [];
  const [from, to] = [Number(range[1]), Number(range[2])];
  return Array.from({ length: to - from + 1 }, (_, k) => `n${from + k}`);
}

/** Plans with another choice for one of the notes that cost at most so much more than the best. */
function others({ planner, score }: JudgedPassage, ids: readonly string[], above: number) {
  const uidOf = new Map(score.notes.map(({ uid, sourceId }) => [sourceId ?? uid, uid]));
  return [...new Set(ids)].flatMap((id) => {
    const uid = uidOf.get(id)!;
    const choices = planner.choices(NONE, uid, 1);
    if (!choices) return [];
    const places = choices.left.slice(1).map(({ string, finger }) => ({ string, finger, pluck: null }));
    const letters = choices.right.slice(1).map(({ pluck }) => ({ ...NO_INK, pluck }));
    const isNear = (_marks: InkMarks, n: number) => choices.left[n + 1]!.extraCost <= above;
    const near = [...places.filter(isNear), ...letters];
    return near
      .map((marks) => planner.plan(new Map([[uid, marks]])))
      .filter(({ cost }) => cost <= planner.plan(NONE).cost + above);
  });
}

/** Of both hands around an accepted fingering; null where it cannot be played so. */
function acceptedCost({ planner, score }: JudgedPassage, variant: readonly Expected[]): number | null {
  const uidOf = new Map(score.notes.map(({ uid, sourceId }) => [sourceId ?? uid, uid]));
  const inkWith = (fixed: ReadonlySet<string>): Ink =>
    new Map(
      variant.flatMap(({ id, string, fret, finger, pluck }): [string, InkMarks][] => {
        const uid = uidOf.get(String(id));
        if (uid === undefined) return [];
        const one = <T>(some: readonly T[] | null | undefined) =>
          some && (some.length === 1 || fixed.has(uid)) ? some[0]! : null;
        const marks = { string, finger: fret === 0 ? 0 : one(finger), pluck: one<Pluck>(pluck) };
        return [[uid, marks]];
      }),
    );
  const wrongIn = ({ notes }: FingeringPlan) => {
    const noteOf = new Map(notes.map((note) => [note.uid, note]));
    return variant.flatMap(({ id, fret, finger, pluck }) => {
      const uid = uidOf.get(String(id));
      const note = uid === undefined ? undefined : noteOf.get(uid);
      if (!note) return [];
      const isFinger = fret === 0 || !finger || (note.finger !== null && finger.includes(note.finger));
      const isLetter = !pluck || (note.pluck !== null && pluck.includes(note.pluck));
      return isFinger && isLetter ? [] : [uid!];
    });
  };
  const plan = settled((fixed: ReadonlySet<string>) => planner.plan(inkWith(fixed)), wrongIn);
  return plan.notes.some(({ string }) => string === null) ? null : plan.cost;
}
