/** Sends files to the shelf one after the other: a result for each, and a way to stop. */
import { z } from 'zod';
import { sendFile } from '$lib/client/sendFile';
import { newerFileText, versionReportSchema } from '$lib/versionReport';

const imported = z.object({
  id: z.uuid(),
  parts: z.array(z.object({ index: z.int(), name: z.string(), notes: z.int() })),
  partIndex: z.int(),
  /** Pieces that were made of the same file before. */
  same: z.array(z.object({ id: z.uuid(), title: z.string() })).default([]),
  /** Pieces of that title from another file. */
  sameTitle: z.array(z.object({ id: z.uuid(), title: z.string() })).default([]),
});

export type Imported = z.infer<typeof imported>;

export type ImportResult =
  | { readonly kind: 'imported'; readonly file: File; readonly piece: Imported }
  | { readonly kind: 'newer'; readonly file: File; readonly pieceId: string; readonly message: string }
  | { readonly kind: 'refused'; readonly file: File; readonly message: string };

export async function importFiles(
  files: readonly File[],
  signal: AbortSignal,
  onResult: (result: ImportResult) => void,
): Promise<void> {
  for (const file of files) {
    if (signal.aborted) onResult({ kind: 'refused', file, message: 'Cancelled; nothing was stored.' });
    else onResult(await importFile(file, { signal }));
  }
}

/** One file; `part` for another part than the one that looks like a guitar. */
export async function importFile(
  file: File,
  options: { readonly part?: number; readonly signal?: AbortSignal } = {},
): Promise<ImportResult> {
  const answer = await sendFile('/api/pieces', file, options);
  if (answer.kind === 'refused') return { kind: 'refused', file, message: answer.message };
  const piece = imported.safeParse(answer.body);
  if (piece.success) return { kind: 'imported', file, piece: piece.data };
  return { kind: 'refused', file, message: 'The server’s answer could not be read; reload the shelf.' };
}

/** The file as the newer one of a piece that is here already. */
export async function importAsNewer(file: File, pieceId: string): Promise<ImportResult> {
  const answer = await sendFile(`/api/pieces/${pieceId}/versions`, file);
  if (answer.kind === 'refused') return { kind: 'refused', file, message: answer.message };
  return { kind: 'newer', file, pieceId, message: newerFileText(versionReportSchema.parse(answer.body)) };
}
