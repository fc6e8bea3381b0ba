/** The saving protocol between desk and server. */
import { z } from 'zod';
import { gestureSchema, storedGestureSchema as storedOperations } from '../core/fingering/edition/operation';

/** Numbers of gestures are 32-bit integers in the database. */
const LAST_SEQ = 2 ** 31 - 1;

export const appendRequestSchema = z.strictObject({
  seenSeq: z.int().min(0).max(LAST_SEQ),
  gestures: z
    .array(gestureSchema)
    .max(500)
    .refine((gestures) => new Set(gestures.map(({ id }) => id)).size === gestures.length, 'one id twice'),
});

const storedGestureSchema = z.object({ seq: z.int(), gesture: storedOperations });

export const appendAnswerSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('saved'), headSeq: z.int() }),
  z.object({ kind: z.literal('behind'), headSeq: z.int(), missing: z.array(storedGestureSchema) }),
  /** The server knows less than the desk has seen, as after an older backup was restored: all that it has. */
  z.object({ kind: z.literal('restored'), headSeq: z.int(), history: z.array(storedGestureSchema) }),
]);

export type AppendRequest = z.infer<typeof appendRequestSchema>;
export type AppendReply = z.infer<typeof appendAnswerSchema>;
