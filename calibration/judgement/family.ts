/** What is measured of a family of passages. */
import { z } from 'zod';

const pair = z.tuple([z.number(), z.number()]);
export const familySchema = z.object({
  family: z.string(),
  strings: pair,
  fingers: pair,
  letters: pair,
  facts: pair,
  left: pair,
  right: pair,
  unproven: z.number(),
});
export type Family = z.infer<typeof familySchema>;
