import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyOperations,
  type Gesture,
  gestureSchema,
  invertOperations,
  type Operation,
  replay,
  setAttribute,
} from './operation';
import type { Ink } from '../ink';

const inkOf = (operations: readonly Operation[]): Ink => {
  const result = applyOperations(new Map(), operations);
  if (result.kind !== 'applied') throw new Error('conflict');
  return result.ink;
};

/** A random history in which every operation states what really was before. */
const history = fc
  .array(
    fc.tuple(
      fc.integer({ min: 1, max: 4 }),
      fc.constantFrom('finger', 'string'),
      fc.option(fc.integer({ min: 1, max: 4 })),
    ),
  )
  .map((steps) => {
    let ink: Ink = new Map();
    const operations: Operation[] = [];
    for (const [note, attribute, after] of steps) {
      const operation = setAttribute(ink, `n${note}`, attribute as 'finger', after);
      if (!operation) continue;
      operations.push(operation);
      ink = inkOf(operations);
    }
    return operations;
  });

describe('operations', () => {
  it('apply and then invert give the ink from before (law)', () => {
    fc.assert(
      fc.property(history, (operations) => {
        const back = applyOperations(inkOf(operations), invertOperations(operations));
        expect(back).toEqual({ kind: 'applied', ink: new Map() });
      }),
    );
  });

  it('refuse the whole list when one does not find what it expects', () => {
    const ink = inkOf([{ v: 1, noteUid: 'n1', attribute: 'finger', before: null, after: 2 }]);
    const result = applyOperations(ink, [
      { v: 1, noteUid: 'n2', attribute: 'finger', before: null, after: 1 },
      { v: 1, noteUid: 'n1', attribute: 'finger', before: 3, after: 4 },
    ]);
    expect(result.kind).toBe('conflict');
    expect(result.kind === 'conflict' && result.conflicts[0]!.found).toBe(2);
    expect(ink.get('n2')).toBeUndefined();
  });

  it('leave no trace of a note that is all pencil again', () => {
    const ink = inkOf([
      { v: 1, noteUid: 'n1', attribute: 'pluck', before: null, after: 'a' },
      { v: 1, noteUid: 'n1', attribute: 'pluck', before: 'a', after: null },
    ]);
    expect(ink.size).toBe(0);
  });

  it('replay leaves out a gesture that does not fit and goes on', () => {
    const gesture = (id: number, operations: Operation[]): Gesture => ({
      id: `00000000-0000-4000-8000-00000000000${id}`,
      operations,
    });
    const clash = gesture(2, [{ v: 1, noteUid: 'n1', attribute: 'finger', before: 4, after: 1 }]);
    const { ink, refused } = replay([
      gesture(1, [{ v: 1, noteUid: 'n1', attribute: 'finger', before: null, after: 2 }]),
      clash,
      gesture(3, [{ v: 1, noteUid: 'n2', attribute: 'string', before: null, after: 3 }]),
    ]);
    expect(refused).toEqual([clash]);
    expect([...ink.keys()]).toEqual(['n1', 'n2']);
  });

  it('the schema refuses fingers, strings and letters that do not exist', () => {
    const withOperation = (operation: object) => ({ id: crypto.randomUUID(), operations: [operation] });
    const base = { v: 1, noteUid: 'n1', before: null };
    expect(gestureSchema.safeParse(withOperation({ ...base, attribute: 'finger', after: 5 })).success).toBe(
      false,
    );
    expect(gestureSchema.safeParse(withOperation({ ...base, attribute: 'string', after: 0 })).success).toBe(
      false,
    );
    expect(gestureSchema.safeParse(withOperation({ ...base, attribute: 'pluck', after: 'x' })).success).toBe(
      false,
    );
    expect(gestureSchema.safeParse(withOperation({ ...base, attribute: 'pluck', after: 'm' })).success).toBe(
      true,
    );
  });
});
