/** What an edition was: states that have a name, and who changed what. */
import { operationSchema } from '$core/fingering/edition/operation';
import type { Registers } from '$core/fingering/edition/registers';
import { z } from 'zod';

const pastSchema = z.object({
  milestones: z.array(
    z.object({ id: z.string(), seq: z.int(), name: z.string(), by: z.string(), createdAt: z.string() }),
  ),
  changes: z.array(
    z.object({ seq: z.int(), by: z.string(), at: z.string(), operations: z.array(operationSchema) }),
  ),
});

export type Past = z.infer<typeof pastSchema>;

const registersSchema = z.array(z.tuple([z.string(), z.union([z.string(), z.number(), z.boolean()])]));

/** @throws Error when the server does not answer */
export async function fetchPast(editionId: string): Promise<Past> {
  return pastSchema.parse(await answered(`/api/editions/${editionId}/milestones`));
}

/** @throws Error when the server does not answer */
export async function fetchRegisters(editionId: string, seq: number): Promise<Registers> {
  const entries = registersSchema.parse(await answered(`/api/editions/${editionId}/registers?seq=${seq}`));
  return new Map(entries) as Registers;
}

/** @throws Error when the server does not answer */
export async function nameState(editionId: string, name: string): Promise<void> {
  await answered(`/api/editions/${editionId}/milestones`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name }),
  });
}

/** @throws Error when the server does not answer */
export async function dropName(id: string): Promise<void> {
  await answered(`/api/milestones/${id}`, { method: 'DELETE' });
}

async function answered(address: string, init?: RequestInit): Promise<unknown> {
  const response = await fetch(address, init).catch(() => null);
  if (!response) throw new Error('The server cannot be reached; nothing was changed. Try again.');
  const body: unknown = response.status === 204 ? null : await response.json().catch(() => null);
  if (!response.ok)
    throw new Error((body as { message?: string } | null)?.message ?? 'This could not be done.');
  return body;
}
