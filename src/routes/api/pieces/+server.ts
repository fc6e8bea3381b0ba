import { json } from '@sveltejs/kit';
import { importErrorText } from '$core/messages/en';
import { importPiece } from '$lib/server/useCases/importPiece';
import type { RequestHandler } from './$types';

const KNOWN = /\.(musicxml|xml|mxl)$/i;

/** One file as form data: 201 with the piece's id, or 422 with the sentence that says what is wrong. */
export const POST: RequestHandler = async ({ request, locals }) => {
  const form = await request.formData().catch(() => null);
  const file = form?.get('file');
  if (!(file instanceof File))
    return json({ message: 'Send one file in the field “file”.' }, { status: 400 });
  if (!KNOWN.test(file.name)) {
    return json({ message: importErrorText({ code: 'unknownKind', name: file.name }) }, { status: 422 });
  }
  const bytes = new Uint8Array(await file.arrayBuffer());
  const result = await importPiece(locals.visitor!, { fileName: file.name, bytes });
  if (!result.ok) return json({ message: importErrorText(result.error) }, { status: 422 });
  return json({ id: result.value }, { status: 201 });
};
