/** Changes of an edition as data: apply, invert, reveal conflicts. */
import { z } from 'zod';
import { type Ink, type InkMarks, NO_INK } from '../ink';
import { PLUCKS } from '../../score/model';

const noteUid = z.string().regex(/^n[1-9]\d{0,6}$/);
const finger = z.int().min(0).max(4).nullable();
const string = z.int().min(1).max(6).nullable();
const pluck = z.enum(PLUCKS).nullable();

/** Sets one attribute of one note; null is pencil. `before` is what the author saw. */
export const operationSchema = z.discriminatedUnion('attribute', [
  z.strictObject({ v: z.literal(1), noteUid, attribute: z.literal('finger'), before: finger, after: finger }),
  z.strictObject({ v: z.literal(1), noteUid, attribute: z.literal('string'), before: string, after: string }),
  z.strictObject({ v: z.literal(1), noteUid, attribute: z.literal('pluck'), before: pluck, after: pluck }),
]);

export type Operation = z.infer<typeof operationSchema>;
export type Attribute = Operation['attribute'];

/** Operations that stand or fall together. The id makes sending twice harmless. */
export const gestureSchema = z.strictObject({
  id: z.uuid(),
  operations: z.array(operationSchema).min(1).max(20_000),
});

export type Gesture = z.infer<typeof gestureSchema>;

export interface Conflict {
  readonly operation: Operation;
  /** The value that stands where the operation expected `before`. */
  readonly found: InkMarks[Attribute];
}

export type ApplyResult =
  | { readonly kind: 'applied'; readonly ink: Ink }
  | { readonly kind: 'conflict'; readonly conflicts: readonly Conflict[] };

/** Applies all operations or none. */
export function applyOperations(ink: Ink, operations: readonly Operation[]): ApplyResult {
  const next = new Map(ink);
  const conflicts: Conflict[] = [];
  for (const operation of operations) {
    const marks = next.get(operation.noteUid) ?? NO_INK;
    const found = marks[operation.attribute];
    if (found !== operation.before) conflicts.push({ operation, found });
    const changed = { ...marks, [operation.attribute]: operation.after };
    if (isBlank(changed)) next.delete(operation.noteUid);
    else next.set(operation.noteUid, changed);
  }
  return conflicts.length > 0 ? { kind: 'conflict', conflicts } : { kind: 'applied', ink: next };
}

const isBlank = (marks: InkMarks) => marks.finger === null && marks.string === null && marks.pluck === null;

/** Undoes `operations` when applied after them. */
export function invertOperations(operations: readonly Operation[]): Operation[] {
  return [...operations].reverse().map((operation) => swapped(operation));
}

const swapped = <T extends Operation>(operation: T): T => ({
  ...operation,
  before: operation.after,
  after: operation.before,
});

/** The operation that sets one attribute of a note, or null when it has that value. */
export function setAttribute<A extends Attribute>(
  ink: Ink,
  noteUid: string,
  attribute: A,
  after: InkMarks[A],
): Operation | null {
  const before = (ink.get(noteUid) ?? NO_INK)[attribute];
  return before === after ? null : operationSchema.parse({ v: 1, noteUid, attribute, before, after });
}

/**
 * Applies a history from the start. A gesture that no longer fits is left out whole and reported, never forced.
 */
export function replay(gestures: readonly Gesture[]): {
  readonly ink: Ink;
  readonly refused: readonly Gesture[];
} {
  let ink: Ink = new Map();
  const refused: Gesture[] = [];
  for (const gesture of gestures) {
    const result = applyOperations(ink, gesture.operations);
    if (result.kind === 'applied') ink = result.ink;
    else refused.push(gesture);
  }
  return { ink, refused };
}
