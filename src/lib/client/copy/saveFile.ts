/** A file that the server makes: saved under the name that the server gives it, or one sentence that says why not. */
import { z } from 'zod';

const refused = z.object({ message: z.string() });

/** @returns null when the file is there */
export async function saveFile(address: string, request: unknown): Promise<string | null> {
  try {
    const response = await fetch(address, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(request),
    });
    if (response.ok) {
      save(await response.blob(), nameOf(response) ?? 'copy');
      return null;
    }
    if (response.status === 401) return 'You are signed out: sign in again, then save the file.';
    const why = refused.safeParse(await response.json().catch(() => null));
    return why.success ? why.data.message : 'The server could not make the file; try again.';
  } catch {
    return 'The server does not answer, so the file could not be made. Your marks are safe; try again.';
  }
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
