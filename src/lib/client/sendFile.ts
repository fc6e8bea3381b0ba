/** Sends one file to the server: its answer, or one sentence that says why not. */
import { z } from 'zod';

export type SendAnswer =
  { readonly kind: 'taken'; readonly body: unknown } | { readonly kind: 'refused'; readonly message: string };

const refused = z.object({ message: z.string() });

export async function sendFile(
  address: string,
  file: File,
  options: { readonly part?: number; readonly signal?: AbortSignal } = {},
): Promise<SendAnswer> {
  const form = new FormData();
  form.set('file', file);
  if (options.part !== undefined) form.set('part', String(options.part));
  try {
    const response = await fetch(address, { method: 'POST', body: form, signal: options.signal ?? null });
    const body: unknown = await response.json().catch(() => null);
    if (response.ok) return { kind: 'taken', body };
    if (response.status === 413) {
      const message = 'The file is larger than 20 MB; export the score alone, without sound or pictures.';
      return { kind: 'refused', message };
    }
    const why = refused.safeParse(body);
    return {
      kind: 'refused',
      message: why.success ? why.data.message : 'The server could not take the file; try again.',
    };
  } catch {
    const message = options.signal?.aborted
      ? 'Cancelled; nothing was stored.'
      : 'The server does not answer; nothing was stored. Try again.';
    return { kind: 'refused', message };
  }
}
