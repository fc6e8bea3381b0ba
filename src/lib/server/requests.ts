/** What several routes do with their requests. */
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { ImportError } from '../../core/formats/importError';
import { importErrorText } from '../../core/messages/en';

/** Null for anything that is no id: it is then nobody's. */
export const maybeId = (text: string | undefined): string | null => z.uuid().safeParse(text).data ?? null;

export interface SentFile {
  readonly fileName: string;
  readonly bytes: Uint8Array;
  readonly partIndex: number | null;
}

const part = z.coerce.number().int().min(0).max(500).nullable();

/** The file of a form, with the part that was asked for; null when there is none. */
export async function maybeSentFile(request: Request): Promise<SentFile | null> {
  const form = await request.formData().catch(() => null);
  const file = form?.get('file');
  const wanted = part.safeParse(form?.get('part') ?? null);
  if (!(file instanceof File) || !wanted.success) return null;
  return {
    fileName: file.name.slice(0, 300) || 'score',
    bytes: new Uint8Array(await file.arrayBuffer()),
    partIndex: wanted.data,
  };
}

export const refused = (error: ImportError): Response =>
  json({ message: importErrorText(error) }, { status: error.code === 'unknownPiece' ? 404 : 422 });

/** Says which of the fields is wrong. */
export const routineProblem = ({ issues }: z.ZodError): Response => {
  const { path, message } = issues[0]!;
  return json(
    { message: `The routine cannot be kept: ${path.join('.') || 'it'}: ${message}.` },
    { status: 400 },
  );
};

export const noFile = (): Response =>
  json({ message: 'Send one file in the field “file”.' }, { status: 400 });

/** Content that never changes at its address, packed with gzip. */
export const packedForEver = (content: Uint8Array, contentType: string): Response =>
  new Response(new Uint8Array(content), {
    headers: {
      'content-type': contentType,
      'content-encoding': 'gzip',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });

/** A file to be saved under its name. */
export const fileAnswer = (content: Uint8Array, name: string, contentType: string): Response =>
  new Response(new Uint8Array(content), {
    headers: {
      'content-type': contentType,
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
    },
  });
