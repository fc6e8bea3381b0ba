import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { scoreOrThrow } from '../../../tests/helpers/music';
import { Planner } from '../fingering/planner';
import { DEFAULT_PLAYER } from '../instrument/hands';
import { excerptOf } from './excerpt';

const demo = (name: string) =>
  scoreOrThrow(readFileSync(new URL(`../../../demo/${name}.musicxml`, import.meta.url), 'utf8'));

describe('some bars of a score', () => {
  const whole = demo('weir-etude');
  const part = excerptOf(whole, 2, 4);

  it('are the notes of these bars where they were', () => {
    expect(part.notes.length).toBeGreaterThan(0);
    expect(part.notes).toEqual(whole.notes.filter(({ measureIndex }) => [2, 3, 4].includes(measureIndex)));
    expect(part.measures).toBe(whole.measures);
  });

  it('lead nowhere outside', () => {
    const uids = new Set(part.notes.map(({ uid }) => uid));
    for (const spans of [part.slurs, part.ligados, part.slides])
      for (const { fromUid, toUid } of spans) expect(uids.has(fromUid) && uids.has(toUid)).toBe(true);
  });

  it('are fingered in their bars', () => {
    const { fretboard, hand } = DEFAULT_PLAYER;
    const plan = new Planner(part, fretboard, hand).plan(new Map());
    const bars = plan.effortByBar.map(({ left, right }) => left + right > 0);
    expect(plan.notes.map(({ uid }) => uid).sort()).toEqual(part.notes.map(({ uid }) => uid).sort());
    expect(plan.notes.every(({ string }) => string !== null)).toBe(true);
    expect(bars.map((hasEffort, bar) => (hasEffort ? bar : null)).filter((bar) => bar !== null)).toEqual([
      2, 3, 4,
    ]);
  });
});
