/** Routines on the server. */
import type { Routine } from '$core/drills/routine';

type Answer = { readonly id: string } | { readonly message: string };

/** @param id null makes a new one */
export async function saveRoutine(id: string | null, routine: Routine): Promise<Answer> {
  return send(id === null ? '/api/routines' : `/api/routines/${id}`, {
    method: id === null ? 'POST' : 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(routine),
  });
}

/** Null when it is gone, else what was in the way. */
export async function dropRoutine(id: string): Promise<string | null> {
  const answer = await send(`/api/routines/${id}`, { method: 'DELETE' });
  return 'message' in answer ? answer.message : null;
}

async function send(address: string, init: RequestInit): Promise<Answer> {
  const response = await fetch(address, init).catch(() => null);
  if (!response) return { message: 'The server cannot be reached; nothing was changed. Try again.' };
  const body = response.status === 204 ? { id: '' } : await response.json().catch(() => null);
  if (response.ok) return body as Answer;
  return { message: body?.message ?? 'This could not be kept; try again.' };
}
