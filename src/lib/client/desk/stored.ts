/** What the server has made ready for a piece: the first paint needs neither engraver nor planner. */
import type { FingeringPlan } from '$core/fingering/report/plan';
import type { DocumentInput } from '$workers/readInput';
import type { PreparedPage } from '$workers/preparePage';
import type { OpenedPiece } from '$lib/server/useCases/openPiece';

export type DeskOpening = OpenedPiece;

/** Null where nothing is stored, or it could not be fetched: then the workers do it. */
async function maybeJson<T>(address: string | null): Promise<T | null> {
  if (!address) return null;
  const response = await fetch(address).catch(() => null);
  // The server made this from its own data; its shape is that of the code that is running here.
  return response?.ok ? ((await response.json()) as T) : null;
}

export const fetchPage = ({ stored }: DeskOpening): Promise<PreparedPage | null> =>
  maybeJson<PreparedPage>(stored.page ?? stored.beginning);

export const fetchPlan = (opening: DeskOpening): Promise<FingeringPlan | null> =>
  maybeJson<FingeringPlan>(opening.stored.plan);

export type DeskDocument = Omit<DocumentInput, 'registers'>;

/** @throws Error when the score does not come */
export async function fetchDocument({ version }: DeskOpening): Promise<DeskDocument> {
  const response = await fetch(`/api/versions/${version.id}/document`);
  if (!response.ok) throw new Error('The score could not be loaded; reload the page.');
  const bytes = new Uint8Array(await response.arrayBuffer());
  return { bytes, partIndex: version.partIndex, uids: version.uids, convertedFrom: version.convertedFrom };
}
