import { error } from '@sveltejs/kit';
import { withTransaction } from '$lib/server/db';
import { listenTo, onStop } from '$lib/server/live';
import { maybeFindPieceOfEdition } from '$lib/server/repositories/pieces';
import { maybeId } from '$lib/server/requests';
import type { RequestHandler } from './$types';

/** So that what lies between server and browser does not take it for dead. */
const BEAT_MS = 20_000;

/** Server-sent events: the number of the last gesture, whenever there are new ones. */
export const GET: RequestHandler = async ({ locals, params }) => {
  const id = maybeId(params.editionId);
  const piece =
    id && (await withTransaction(locals.visitor!.studioId, (tx) => maybeFindPieceOfEdition(tx, id)));
  if (!id || !piece) error(404, 'This edition is not on your shelf.');
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const text = new TextEncoder();
      const send = (lines: string) => controller.enqueue(text.encode(lines));
      const forget = listenTo(id, (headSeq) => send(`data: ${headSeq}\n\n`));
      const beat = setInterval(() => send(': still here\n\n'), BEAT_MS);
      const forgetStop = onStop(() => {
        stop();
        controller.close();
      });
      stop = () => {
        clearInterval(beat);
        forget();
        forgetStop();
      };
      // What happened between the page and this answer.
      send(`retry: 2000\ndata: ${piece.gestures}\n\n`);
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
};
