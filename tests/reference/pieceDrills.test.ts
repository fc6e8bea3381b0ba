/** Drills that are cut from pieces: the piece's own fingering, distances, times and letters, and nothing unplayable. */
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chosenOf, parametersOf } from '../../src/core/drills/drill';
import { drillScore } from '../../src/core/drills/drillScore';
import { blocksOf } from '../../src/core/drills/passage/blocks';
import { changesIn } from '../../src/core/drills/passage/kinds/changes';
import { type Passage, passageOf } from '../../src/core/drills/passage/passage';
import { PIECE_KIND_IDS, pieceKindsOf } from '../../src/core/drills/passage/pieceKinds';
import { inkOf } from '../../src/core/fingering/edition/registers';
import { Planner } from '../../src/core/fingering/planner';
import { CONCERT_FRETBOARD } from '../../src/core/instrument/fretboard';
import { ADULT_MEDIUM } from '../../src/core/instrument/hands';
import type { Score } from '../../src/core/score/model';
import type { FingeringPlan } from '../../src/core/fingering/report/plan';
import { plannerFor } from '../../src/workers/preparePlan';
import { scoreOrThrow } from '../helpers/music';

const folder = new URL('../../demo/', import.meta.url);

interface Piece {
  readonly name: string;
  readonly score: Score;
  readonly plan: FingeringPlan;
}

const pieces: readonly Piece[] = readdirSync(folder).map((name) => {
  const score = scoreOrThrow(readFileSync(new URL(name, folder), 'utf8'));
  return { name, score, plan: new Planner(score, CONCERT_FRETBOARD, ADULT_MEDIUM).plan(new Map()) };
});

const whole = ({ score, plan }: Piece): Passage => passageOf(score, plan, 0, score.measures.length - 1);
const fourBars = ({ score, plan }: Piece): Passage => passageOf(score, plan, 4, 7);

describe.each(pieces.map((piece) => [piece.name, piece] as const))('%s', (_name, piece) => {
  it('makes drills that the hand it was planned for can play, decided in every note', () => {
    for (const passage of [fourBars(piece), whole(piece)]) {
      expect(pieceKindsOf(passage).map(({ id }) => id)).toEqual(PIECE_KIND_IDS);
      for (const kind of pieceKindsOf(passage)) {
        const plain = chosenOf(kind, {});
        const choices = parametersOf(kind).flatMap(({ id, values }) =>
          id === 'hand' ? [] : values.slice(1).map(([value]) => ({ ...plain, [id]: value })),
        );
        for (const chosen of [plain, ...choices]) {
          const { registers, document } = drillScore(kind, chosen);
          const ink = inkOf(registers);
          const faults = plannerFor(document.score, registers)
            .plan(ink)
            .findings.filter(({ code }) => /unplayable|outside|Contradicts/.test(code));
          expect([kind.id, chosen, ink.size, faults]).toEqual([
            kind.id,
            chosen,
            document.score.notes.length,
            [],
          ]);
        }
      }
    }
  });

  it('keeps the time and the letters of every change, and the way that the hand goes', () => {
    const passage = whole(piece);
    const kind = pieceKindsOf(passage).find(({ id }) => id === 'piece-changes')!;
    const { registers, document, music } = drillScore(kind, {});
    const plan = plannerFor(document.score, registers).plan(inkOf(registers));
    for (const { shift } of changesIn(passage)) {
      if (!shift) continue;
      const twins = plan.shifts.filter(
        ({ fromPosition, toPosition, windowMs }) =>
          fromPosition === shift.fromPosition &&
          toPosition === shift.toPosition &&
          Math.abs(windowMs - shift.windowMs) <= 2,
      );
      // A hand that is stretched in the piece may lie a fret further in the drill: then another finger says where it is.
      const near = plan.shifts.filter(({ windowMs }) => Math.abs(windowMs - shift.windowMs) <= 2);
      expect([shift, near.length > 0]).toEqual([shift, true]);
      if (twins.length > 0)
        expect(
          Math.min(...twins.map(({ distanceMm }) => Math.abs(distanceMm - shift.distanceMm))),
        ).toBeLessThan(40);
    }
    const letters = new Set(
      passage.notes.map(({ string, fret, finger, letter }) => `${string} ${fret} ${finger} ${letter}`),
    );
    for (const { string, fret, finger, letter } of music.voices.flat().flatMap(({ notes }) => notes))
      if (letter !== null) expect(letters).toContain(`${string} ${fret} ${finger} ${letter}`);
  });

  it('has every place of the passage in some block, each block in one grip', () => {
    const passage = fourBars(piece);
    const blocks = blocksOf(passage);
    const places = new Set(
      blocks.flatMap(({ notes }) => notes.map(({ string, fret }) => `${string} ${fret}`)),
    );
    for (const { string, fret } of passage.notes) expect(places).toContain(`${string} ${fret}`);
    for (const { notes } of blocks) {
      expect(new Set(notes.map(({ string }) => string)).size).toBe(notes.length);
      const frets = new Map<number, number>();
      for (const { finger, fret } of notes) {
        if (!finger) continue;
        expect(frets.get(finger) ?? fret).toBe(fret);
        frets.set(finger, fret!);
      }
    }
  });
});

it('finds the distance of most changes to the millimetre', () => {
  let [same, all] = [0, 0];
  for (const piece of pieces) {
    const passage = whole(piece);
    const kind = pieceKindsOf(passage).find(({ id }) => id === 'piece-changes')!;
    const { registers, document } = drillScore(kind, {});
    const { shifts } = plannerFor(document.score, registers).plan(inkOf(registers));
    for (const { shift } of changesIn(passage)) {
      if (!shift) continue;
      all++;
      if (
        shifts.some(
          (one) =>
            one.fromPosition === shift.fromPosition &&
            one.toPosition === shift.toPosition &&
            Math.abs(one.distanceMm - shift.distanceMm) < 1 &&
            Math.abs(one.windowMs - shift.windowMs) <= 2,
        )
      )
        same++;
    }
  }
  expect(all).toBeGreaterThan(20);
  expect(same / all).toBeGreaterThan(0.8);
});
