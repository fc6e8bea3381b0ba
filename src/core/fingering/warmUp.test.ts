import { describe, expect, it } from 'vitest';
import { DEFAULT_PLAYER } from '../instrument/hands';
import { Planner } from './planner';
import { WARM_UPS, warmUpScore } from './warmUp';

describe('the étude that warms the planner up', () => {
  it.each([...Array(WARM_UPS).keys()])('can be played in part %i', (n) => {
    const score = warmUpScore(n);
    const plan = new Planner(score, DEFAULT_PLAYER.fretboard, DEFAULT_PLAYER.hand).plan(new Map());
    expect(plan.findings.filter((finding) => finding.code === 'unplayable')).toEqual([]);
    expect(plan.notes.length).toBe(score.notes.length);
  });

  it('is long enough to be worth it, in parts that keep nobody waiting', () => {
    const lengths = [...Array(WARM_UPS).keys()].map((n) => warmUpScore(n).notes.length);
    expect(lengths.reduce((a, b) => a + b)).toBeGreaterThan(900);
    expect(Math.max(...lengths)).toBeLessThan(80);
  });
});
