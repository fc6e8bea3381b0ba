import { describe, expect, it } from 'vitest';
import { DEFAULT_PLAYER } from '../instrument/hands';
import { Planner } from './planner';
import { WARM_UPS, warmUpScore } from './warmUp';

describe('the étude that warms the planner up', () => {
  it.each([...Array(WARM_UPS).keys()])('number %i can be played, and is long enough to be worth it', (n) => {
    const score = warmUpScore(n);
    const plan = new Planner(score, DEFAULT_PLAYER.fretboard, DEFAULT_PLAYER.hand).plan(new Map());
    expect(plan.findings.filter((finding) => finding.code === 'unplayable')).toEqual([]);
    expect(plan.notes.length).toBe(score.notes.length);
    expect(plan.notes.length).toBeGreaterThan(200);
  });
});
