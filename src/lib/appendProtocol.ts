/** The saving protocol between desk and server. */
import { z } from 'zod';
import { gestureSchema } from '../core/fingering/edition/operation';

export const appendRequestSchema = z.strictObject({
  seenSeq: z.int().min(0),
  gestures: z.array(gestureSchema).max(500),
});

const storedGestureSchema = z.object({ seq: z.int(), gesture: gestureSchema });

export const appendAnswerSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('saved'), headSeq: z.int() }),
  z.object({ kind: z.literal('behind'), headSeq: z.int(), missing: z.array(storedGestureSchema) }),
]);

export type AppendRequest = z.infer<typeof appendRequestSchema>;
export type AppendReply = z.infer<typeof appendAnswerSchema>;
