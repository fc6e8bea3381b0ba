/** Sends files to the shelf one after the other: a result for each. */
import { z } from 'zod';

export type ImportResult =
  | { readonly kind: 'imported'; readonly fileName: string; readonly pieceId: string }
  | { readonly kind: 'refused'; readonly fileName: string; readonly message: string };

const imported = z.object({ id: z.uuid() });
const refused = z.object({ message: z.string() });

export async function importFiles(files: readonly File[]): Promise<readonly ImportResult[]> {
  const results: ImportResult[] = [];
  for (const file of files) results.push(await importFile(file));
  return results;
}

async function importFile(file: File): Promise<ImportResult> {
  const form = new FormData();
  form.set('file', file);
  try {
    const response = await fetch('/api/pieces', { method: 'POST', body: form });
    const body: unknown = await response.json().catch(() => null);
    const done = imported.safeParse(body);
    if (response.ok && done.success) return { kind: 'imported', fileName: file.name, pieceId: done.data.id };
    const why = refused.safeParse(body);
    const message =
      response.status === 413
        ? 'The file is larger than 20 MB; export the score alone, without sound or pictures.'
        : why.success
          ? why.data.message
          : 'The server could not take the file; try again.';
    return { kind: 'refused', fileName: file.name, message };
  } catch {
    return {
      kind: 'refused',
      fileName: file.name,
      message: 'The server does not answer; nothing was stored. Try again.',
    };
  }
}
