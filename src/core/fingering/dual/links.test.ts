import { describe, expect, it } from 'vitest';
import { type Links, narrowLinks } from './links';

/** Ways by the state that they lead to: the situation before, and the price. */
function links(situationOf: readonly number[], ways: readonly (readonly [number, number][])[]): Links {
  const start = [0];
  for (const into of ways) start.push(start.at(-1)! + into.length);
  return {
    situationOf: Int32Array.from(situationOf),
    situations: Math.max(...situationOf) + 1,
    start: Int32Array.from(start),
    from: Int32Array.from(ways.flat(), ([from]) => from),
    price: Int32Array.from(ways.flat(), ([, price]) => price),
  };
}

const waysOf = ({ start, from, price }: Links) =>
  [...start.subarray(0, -1)].map((first, s) =>
    Array.from({ length: start[s + 1]! - first }, (_, e) => [from[first + e]!, price[first + e]!]),
  );

describe('narrower links', () => {
  const first = links([2, 0, 1, 2], [[[0, 5]], [[0, 6]], [[0, 7]], [[0, 8]]]);
  const second = links(
    [0, 1, 0],
    [
      [
        [0, 10],
        [1, 11],
        [2, 12],
      ],
      [[1, 20]],
      [
        [0, 30],
        [2, 32],
      ],
    ],
  );
  const [narrowFirst, narrowSecond] = narrowLinks(
    [first, second],
    [Int32Array.of(0, 1), Int32Array.of(0, 2)],
  ) as [Links, Links];

  it('number the situations that are left in the order in which kept states leave them', () => {
    expect([...narrowFirst.situationOf]).toEqual([0, 1]);
    expect(narrowFirst.situations).toBe(2);
    expect([...narrowSecond.situationOf]).toEqual([0, 0]);
    expect(narrowSecond.situations).toBe(1);
  });

  it('keep the ways between kept states at their prices, and no others', () => {
    // Situation 1 is left by no kept state; 2 has become 0, and 0 has become 1.
    expect(waysOf(narrowSecond)).toEqual([
      [
        [1, 10],
        [0, 12],
      ],
      [
        [1, 30],
        [0, 32],
      ],
    ]);
  });

  it('have no ways into the first moment', () => {
    expect(waysOf(narrowFirst)).toEqual([[], []]);
  });
});
