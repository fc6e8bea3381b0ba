/** What a calibration came to, as it is kept for the report. */
import { z } from 'zod';

const pair = z.tuple([z.number(), z.number()]).readonly();
const agreements = z
  .array(
    z.object({
      family: z.string(),
      strings: pair,
      fingers: pair,
      letters: pair,
      left: pair,
      right: pair,
    }),
  )
  .readonly();

export const learnedSchema = z.object({
  /** At the weights that stand in the table. */
  standing: agreements,
  /** At the numbers that were set by hand. */
  before: agreements,
  fitted: agreements,
  /** Each passage at the weights that were fitted without it, and without others of the same music. */
  cross: agreements,
  moved: z
    .array(z.object({ term: z.string(), standing: z.number(), before: z.number(), fitted: z.number() }))
    .readonly(),
  /** Terms whose weights are set by hand. */
  set: z.array(z.string()).readonly(),
  /** Facts as inequalities at the standing weights, both hands together. */
  facts: z
    .array(
      z.object({
        family: z.string(),
        kept: z.number(),
        all: z.number(),
        broken: z.array(z.tuple([z.string(), z.number()]).readonly()).readonly(),
      }),
    )
    .readonly(),
  /** Passages whose plan is not accepted whatever weights are found for them alone, see `alone.ts`. */
  never: z.array(z.string()).readonly(),
  notSeparable: z.object({
    alone: z.array(z.string()).readonly(),
    inFamily: z.array(z.string()).readonly(),
    together: z.array(z.string()).readonly(),
  }),
});

export type Learned = z.infer<typeof learnedSchema>;
