/** Where in the studio's pieces a drill is needed. */
import { withTransaction } from '../db';
import { listPieces } from '../repositories/pieces';

export interface DrillNeed {
  readonly pieceId: string;
  readonly title: string;
  readonly because: string;
  readonly bars: readonly string[];
}

/** By kind of drill. @throws DatabaseError when the database fails */
export async function drillNeeds(studioId: string): Promise<Readonly<Record<string, readonly DrillNeed[]>>> {
  const pieces = await withTransaction(studioId, listPieces);
  const needs: Record<string, DrillNeed[]> = {};
  for (const { id, title, plan } of pieces)
    for (const { kind, because, bars } of plan?.drills ?? [])
      (needs[kind] ??= []).push({ pieceId: id, title, because, bars });
  return needs;
}
