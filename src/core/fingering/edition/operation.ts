/** Changes of an edition as data: apply, invert, reveal conflicts. */
import { z } from 'zod';
import { PLUCKS } from '../../score/model';
import {
  type Attribute,
  ATTRIBUTE_NAMES,
  fitsTarget,
  fitsValue,
  type Value,
  type ValueOf,
} from './attributes';
import { keyOf, NO_REGISTERS, type Registers, valueAt } from './registers';

/**
 * Text that a database can keep and give back: PostgreSQL has no character 0, and half of a surrogate pair is no
 * character at all.
 */
const storableText = z
  .string()
  .max(200)
  .refine((text) => !text.includes('\0') && text.isWellFormed(), 'the text holds what is no character');

const value = z.union([storableText, z.number(), z.boolean(), z.null()]);

/** Sets one attribute of a note, a bar or the piece; null is unset. `before` is what the author saw. */
const operationV2 = z
  .strictObject({
    v: z.literal(2),
    target: z.string(),
    attribute: z.enum(ATTRIBUTE_NAMES as [Attribute, ...Attribute[]]),
    before: value,
    after: value,
  })
  .refine(({ attribute, target }) => fitsTarget(attribute, target), 'the target does not fit the attribute')
  .refine(
    ({ attribute, before, after }) => fitsValue(attribute, before) && fitsValue(attribute, after),
    'the attribute does not take the value',
  );

export type Operation = z.infer<typeof operationV2>;

/** The first form, which knew notes and their fingering only. It is read for ever. */
const noteUid = z.string().regex(/^n[1-9]\d{0,6}$/);
const finger = z.int().min(0).max(4).nullable();
const string = z.int().min(1).max(6).nullable();
const pluck = z.enum(PLUCKS).nullable();
const operationV1 = z.discriminatedUnion('attribute', [
  z.strictObject({ v: z.literal(1), noteUid, attribute: z.literal('finger'), before: finger, after: finger }),
  z.strictObject({ v: z.literal(1), noteUid, attribute: z.literal('string'), before: string, after: string }),
  z.strictObject({ v: z.literal(1), noteUid, attribute: z.literal('pluck'), before: pluck, after: pluck }),
]);

type OperationV1 = z.infer<typeof operationV1>;

const upcast = ({ noteUid: target, attribute, before, after }: OperationV1): Operation => ({
  v: 2,
  target,
  attribute,
  before,
  after,
});

/** Takes every form there ever was; gives the newest. */
export const operationSchema = z.union([operationV2, operationV1.transform(upcast)]);

/** So many operations are sent in one gesture at most; longer ones are written as several. */
export const MOST_OPERATIONS = 20_000;

/** What is stored is read whatever its size: what was acknowledged once must never be refused. */
export const storedGestureSchema = z.strictObject({
  // The database writes ids in lower case: sent otherwise, a gesture would be another one when it is sent again.
  id: z.uuid().toLowerCase(),
  operations: z.array(operationSchema).min(1),
});

/** Operations that stand or fall together, as they are sent. The id makes sending twice harmless. */
export const gestureSchema = storedGestureSchema.refine(
  ({ operations }) => operations.length <= MOST_OPERATIONS,
  'too many operations in one gesture',
);

export type Gesture = z.infer<typeof gestureSchema>;

export interface Conflict {
  readonly operation: Operation;
  /** The value that stands where the operation expected `before`. */
  readonly found: Value;
}

export type ApplyResult =
  | { readonly kind: 'applied'; readonly registers: Registers }
  | { readonly kind: 'conflict'; readonly conflicts: readonly Conflict[] };

/** Applies all operations or none. */
export function applyOperations(registers: Registers, operations: readonly Operation[]): ApplyResult {
  const next = new Map(registers);
  const conflicts: Conflict[] = [];
  for (const operation of operations) {
    const found = valueAt(next, operation.target, operation.attribute);
    if (found !== operation.before) conflicts.push({ operation, found });
    const key = keyOf(operation.target, operation.attribute);
    if (operation.after === null) next.delete(key);
    else next.set(key, operation.after);
  }
  return conflicts.length > 0 ? { kind: 'conflict', conflicts } : { kind: 'applied', registers: next };
}

/** Undoes `operations` when applied after them. */
export function invertOperations(operations: readonly Operation[]): Operation[] {
  return [...operations]
    .reverse()
    .map((operation) => ({ ...operation, before: operation.after, after: operation.before }));
}

/**
 * The operation that sets one attribute, or null when it has that value.
 * @throws ZodError when the value or the target does not fit the attribute
 */
export function setAttribute<A extends Attribute>(
  registers: Registers,
  target: string,
  attribute: A,
  after: ValueOf<A>,
): Operation | null {
  const before = valueAt(registers, target, attribute);
  return before === after ? null : operationV2.parse({ v: 2, target, attribute, before, after });
}

/**
 * Applies a history from the start, or from the registers as they stood at its beginning. A gesture that no longer fits is left out whole and reported, never forced.
 */
export function replay(
  gestures: readonly Gesture[],
  base: Registers = NO_REGISTERS,
): {
  readonly registers: Registers;
  readonly refused: readonly Gesture[];
} {
  let registers = base;
  const refused: Gesture[] = [];
  for (const gesture of gestures) {
    const result = applyOperations(registers, gesture.operations);
    if (result.kind === 'applied') registers = result.registers;
    else refused.push(gesture);
  }
  return { registers, refused };
}
