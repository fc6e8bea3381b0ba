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
import { inkOf as inkOfRegisters, NO_REGISTERS, type Registers } from './registers';

const after = (operations: readonly Operation[]): Registers => {
  const result = applyOperations(NO_REGISTERS, operations);
  if (result.kind !== 'applied') throw new Error('conflict');
  return result.registers;
};

const op = (
  target: string,
  attribute: Operation['attribute'],
  before: Operation['before'],
  value: Operation['after'],
): Operation => ({ v: 2, target, attribute, before, after: value });

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
    let registers = NO_REGISTERS;
    const operations: Operation[] = [];
    for (const [note, attribute, value] of steps) {
      const operation = setAttribute(registers, `n${note}`, attribute as 'finger', value);
      if (!operation) continue;
      operations.push(operation);
      registers = after(operations);
    }
    return operations;
  });

describe('operations', () => {
  it('apply and then invert give the ink from before (law)', () => {
    fc.assert(
      fc.property(history, (operations) => {
        const back = applyOperations(after(operations), invertOperations(operations));
        expect(back).toEqual({ kind: 'applied', registers: new Map() });
      }),
    );
  });

  it('refuse the whole list when one does not find what it expects', () => {
    const registers = after([op('n1', 'finger', null, 2)]);
    const result = applyOperations(registers, [op('n2', 'finger', null, 1), op('n1', 'finger', 3, 4)]);
    expect(result.kind).toBe('conflict');
    expect(result.kind === 'conflict' && result.conflicts[0]!.found).toBe(2);
    expect([...registers.keys()]).toEqual(['n1 finger']);
  });

  it('leave no trace of a note that is all pencil again', () => {
    const registers = after([op('n1', 'pluck', null, 'a'), op('n1', 'pluck', 'a', null)]);
    expect(inkOfRegisters(registers).size).toBe(0);
  });

  it('replay leaves out a gesture that does not fit and goes on', () => {
    const gesture = (id: number, operations: Operation[]): Gesture => ({
      id: `00000000-0000-4000-8000-00000000000${id}`,
      operations,
    });
    const clash = gesture(2, [op('n1', 'finger', 4, 1)]);
    const { registers, refused } = replay([
      gesture(1, [op('n1', 'finger', null, 2)]),
      clash,
      gesture(3, [op('n2', 'string', null, 3)]),
    ]);
    expect(refused).toEqual([clash]);
    expect([...inkOfRegisters(registers).keys()]).toEqual(['n1', 'n2']);
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

  it('takes operations of the first form and gives the newest', () => {
    const old = {
      id: crypto.randomUUID(),
      operations: [{ v: 1, noteUid: 'n7', attribute: 'pluck', before: null, after: 'a' }],
    };
    expect(gestureSchema.parse(old).operations).toEqual([op('n7', 'pluck', null, 'a')]);
  });

  it.each([
    ['n1', 'pitch', 'H4'],
    ['n1', 'pitch', 'F###4'],
    ['n1', 'length', '1/0'],
    ['b1', 'finger', 1],
    ['n1', 'chord', 'Am'],
    ['piece', 'capo', 13],
    ['piece', 'tuning', 'custom:1,2,3,4,5,6'],
    ['piece', 'tempo', 0],
    ['n0', 'finger', 1],
  ] as const)('the schema refuses %s %s %s', (target, attribute, value) => {
    const gesture = { id: crypto.randomUUID(), operations: [op(target, attribute, null, value)] };
    expect(gestureSchema.safeParse(gesture).success).toBe(false);
  });

  it.each([
    ['n1', 'pitch', 'Bb3'],
    ['n1', 'length', '3/2'],
    ['n1', 'tie', false],
    ['b12', 'chord', 'A7'],
    ['piece', 'tuning', 'custom:64,59,55,50,45,36'],
    ['piece', 'octave', -12],
  ] as const)('the schema takes %s %s %s', (target, attribute, value) => {
    const gesture = { id: crypto.randomUUID(), operations: [op(target, attribute, null, value)] };
    expect(gestureSchema.safeParse(gesture).success).toBe(true);
  });
});
