/** Names of states of an edition, what each was, and who changed what. */
import { replay } from '../../../core/fingering/edition/operation';
import { NO_REGISTERS, type Registers } from '../../../core/fingering/edition/registers';
import { withTransaction } from '../db';
import { listGesturesAfter, readEdition } from '../repositories/gestures';
import {
  type ChangeOf,
  insertMilestone,
  listChanges,
  listMilestones,
  type Milestone,
} from '../repositories/milestones';
import { maybeFindPieceOfEdition } from '../repositories/pieces';
import type { Owner } from './importPiece';

const MOST_CHANGES = 40;

export interface EditionPast {
  readonly milestones: readonly Milestone[];
  readonly changes: readonly ChangeOf[];
}

/** Null when this studio has no such edition. @throws DatabaseError when the database fails */
export const maybeListPast = (owner: Owner, editionId: string): Promise<EditionPast | null> =>
  withTransaction(owner.studioId, async (tx) =>
    (await maybeFindPieceOfEdition(tx, editionId))
      ? {
          milestones: await listMilestones(tx, editionId),
          changes: await listChanges(tx, editionId, MOST_CHANGES),
        }
      : null,
  );

/** The edition as it stands gets a name; null when this studio has none such. @throws DatabaseError when the database fails */
export const maybeNameState = (owner: Owner, editionId: string, name: string): Promise<string | null> =>
  withTransaction(owner.studioId, async (tx) => {
    if (!(await maybeFindPieceOfEdition(tx, editionId))) return null;
    const { headSeq } = await readEdition(tx, editionId);
    return insertMilestone(tx, owner, { editionId, seq: headSeq, name });
  });

/** What the edition was after a gesture; null when this studio has none such. @throws DatabaseError when the database fails */
export const maybeRegistersAt = (owner: Owner, editionId: string, seq: number): Promise<Registers | null> =>
  withTransaction(owner.studioId, async (tx) => {
    if (!(await maybeFindPieceOfEdition(tx, editionId))) return null;
    const until = (await listGesturesAfter(tx, editionId, 0)).filter((stored) => stored.seq <= seq);
    return replay(
      until.map(({ gesture }) => gesture),
      NO_REGISTERS,
    ).registers;
  });
