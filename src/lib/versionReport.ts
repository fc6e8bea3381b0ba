/** How a newer file was carried over: what the teacher is told, and what is kept of it. */
import { z } from 'zod';
import { DOUBTS } from '../core/score/alignment/doubts';

const markSchema = {
  attribute: z.string(),
  value: z.union([z.string(), z.number(), z.boolean()]),
};

export const versionReportSchema = z.object({
  /** Share of the old notes that were found again. */
  likeness: z.number(),
  octaveShift: z.int(),
  barsAdded: z.array(z.string()),
  barsGone: z.array(z.string()),
  notesAdded: z.int(),
  notesGone: z.int(),
  /** Marks of the teacher that are on notes of the new version. */
  carried: z.int(),
  /** Those that are not, with the place they had. */
  lost: z.array(z.object({ uid: z.string(), bar: z.string(), note: z.string(), ...markSchema })),
  /** Those whose note was found, but not for certain: the teacher takes or drops them. */
  check: z
    .array(
      z.object({
        from: z.string(),
        to: z.string(),
        doubt: z.enum(DOUBTS),
        bar: z.string(),
        note: z.string(),
        ...markSchema,
      }),
    )
    .default([]),
});

export type VersionReport = z.infer<typeof versionReportSchema>;

/** What to say of a newer file that was taken in. */
export function newerFileText({ carried, check, lost }: VersionReport): string {
  if (carried + check.length + lost.length === 0) return 'Taken in; there were no marks to carry over.';
  const parts = [
    `${carried} ${carried === 1 ? 'mark' : 'marks'} carried over`,
    ...(check.length > 0 ? [`${check.length} to check`] : []),
    ...(lost.length > 0 ? [`${lost.length} without a note`] : []),
  ];
  return `Taken in: ${parts.join(', ')}.`;
}
