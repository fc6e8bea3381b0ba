/** Among plans of equal cost the first in a stated order wins, whatever order states are made in. */
import { describe, expect, it } from 'vitest';
import { barXml, problemFrom, randomNotes } from '../../../../../tests/helpers/music';
import { LeftPlanner } from './planLeft';
import { NO_PLACE } from '../rules/place';
import type { HandLayer } from './handLayer';

/** What lies where, what is let go last; then where the hand stays, or how long it has been free, where, and what its fingers left. */
function keyOf({ rows }: HandLayer, s: number): readonly number[] {
  const places = [...rows.places.subarray(s * rows.columns, (s + 1) * rows.columns)];
  const memory = rows.memories[rows.memory[s]! - 1];
  const remembered = memory ? [memory.waitedTicks, memory.anchor, ...memory.stands] : [rows.anchor[s]!];
  return [...places.map((place) => (place === NO_PLACE ? 9999 : place)), ...remembered, rows.lying[s]!];
}

function isBefore(a: readonly number[], b: readonly number[]): boolean {
  const k = a.findIndex((part, n) => part !== b[n]);
  return k >= 0 && a[k]! < (b[k] ?? Infinity);
}

describe('states of the left hand', () => {
  it.each([1, 2, 3, 4, 5, 6])('are numbered by what lies where and what is remembered (seed %i)', (seed) => {
    const planner = new LeftPlanner(problemFrom(barXml(randomNotes(seed, 6), 60 + 20 * seed)));
    let compared = 0;
    for (const layer of planner.layers) {
      for (let s = 1; s < layer.rows.count; s++, compared++) {
        expect(isBefore(keyOf(layer, s - 1), keyOf(layer, s))).toBe(true);
      }
    }
    expect(compared).toBeGreaterThan(100);
  });
});
