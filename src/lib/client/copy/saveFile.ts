/** A file that the server makes: saved under the name that the server gives it, or one sentence that says why not. */
import { z } from 'zod';

const refused = z.object({ message: z.string() });

export type Made =
  | { readonly kind: 'made'; readonly content: Blob; readonly name: string }
  | { readonly kind: 'refused'; readonly message: string };

export async function fetchFile(
  address: string,
  request: unknown,
  signal: AbortSignal | null = null,
): Promise<Made> {
  try {
    const response = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(request),
      signal,
    });
    if (response.ok)
      return { kind: 'made', content: await response.blob(), name: nameOf(response) ?? 'copy' };
    if (response.status === 401)
      return { kind: 'refused', message: 'You are signed out: sign in again, then save the file.' };
    const why = refused.safeParse(await response.json().catch(() => null));
    const message = why.success ? why.data.message : 'The server could not make the file; try again.';
    return { kind: 'refused', message };
  } catch {
    const message =
      'The server does not answer, so the file could not be made. Your marks are safe; try again.';
    return { kind: 'refused', message };
  }
}

/** @returns null when the file is there */
export async function saveFile(address: string, request: unknown): Promise<string | null> {
  const made = await fetchFile(address, request);
  if (made.kind === 'refused') return made.message;
  save(made.content, made.name);
  return null;
}

function nameOf(response: Response): string | null {
  const match = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '');
  return match ? decodeURIComponent(match[1]!) : null;
}

const RELEASED_AFTER_MS = 10_000;

export function save(content: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), RELEASED_AFTER_MS);
}
