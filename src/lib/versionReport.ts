/** How a newer file was carried over: what the teacher is told, and what is kept of it. */
import { z } from 'zod';

export const versionReportSchema = z.object({
  /** Share of the old notes that were found again. */
  likeness: z.number(),
  octaveShift: z.int(),
  barsAdded: z.array(z.string()),
  barsGone: z.array(z.string()),
  notesAdded: z.int(),
  notesGone: z.int(),
  notesMoved: z.int(),
  /** Marks of the teacher that are on notes of the new version. */
  carried: z.int(),
  /** Those that are not, with the place they had. */
  lost: z.array(
    z.object({
      uid: z.string(),
      bar: z.string(),
      note: z.string(),
      attribute: z.string(),
      value: z.union([z.string(), z.number(), z.boolean()]),
    }),
  ),
});

export type VersionReport = z.infer<typeof versionReportSchema>;
