import { describe, expect, it } from 'vitest';
import { ladderBetween, minutesOf, MOST_ITEMS, routineSchema, type RoutineItem } from './routine';
import { routineSheet } from './routineSheet';

const item = (title: string): RoutineItem => ({
  query: { kind: 'scales' },
  title,
  focuses: ['the crossings alone', 'even and in time'],
  minutes: 5,
  from: 60,
  to: 96,
});

describe('a routine', () => {
  it('goes up a metronome’s marks, seven at most, from the slowest to the fastest', () => {
    expect(ladderBetween(60, 60)).toEqual([60]);
    expect(ladderBetween(60, 66)).toEqual([60, 63, 66]);
    const long = ladderBetween(60, 200);
    expect(long).toHaveLength(7);
    expect([long[0], long.at(-1)]).toEqual([60, 200]);
    expect([...long].sort((a, b) => a - b)).toEqual(long);
  });

  it('refuses a ladder that goes down, no minutes, and more than a page holds', () => {
    const ok = { title: 'Morning', items: [item('Scales')] };
    expect(routineSchema.safeParse(ok).success).toBe(true);
    expect(routineSchema.safeParse({ ...ok, items: [{ ...item('x'), from: 90, to: 60 }] }).success).toBe(
      false,
    );
    expect(routineSchema.safeParse({ ...ok, items: [{ ...item('x'), minutes: 0 }] }).success).toBe(false);
    const many = Array.from({ length: MOST_ITEMS + 1 }, () => item('x'));
    expect(routineSchema.safeParse({ ...ok, items: many }).success).toBe(false);
  });

  it('stands on one page whatever its length, every drill with its minutes and tempos', () => {
    for (const count of [1, 5, MOST_ITEMS]) {
      const routine = {
        title: 'Morning',
        items: Array.from({ length: count }, (_, k) => item(`Drill ${k + 1}`)),
      };
      const { svg, heightMm } = routineSheet(routine);
      expect(svg).toContain(`${minutesOf(routine)} minutes`);
      const lowest = Math.max(...[...svg.matchAll(/ y="([\d.]+)"/g)].map(([, y]) => Number(y)));
      expect(lowest).toBeLessThan(heightMm - 10);
      for (let k = 1; k <= count; k++) expect(svg).toContain(`Drill ${k}<`);
      expect(svg.match(/<rect/g)).toHaveLength(count * ladderBetween(60, 96).length);
    }
  });

  it('does not let a title break out of its place', () => {
    const { svg } = routineSheet({ title: 'A <b> & "c"', items: [] });
    expect(svg).toContain('A &lt;b&gt; &amp;');
  });
});
