/** Makes pages and plans ready in the background, as far as they are not there yet. */
import { createHash } from 'node:crypto';
import { lensKey, type Registers, scoreCorrectionsKey } from '../../../core/fingering/edition/registers';
import { replay } from '../../../core/fingering/edition/operation';
import { ENGRAVER, PLANNER } from 'virtual:model-names';
import type { DocumentInput } from '../../../workers/readInput';
import { withTransaction } from '../db';
import { backgroundPool } from '../jobs/pool';
import { log } from '../log';
import { listGesturesAfter } from '../repositories/gestures';
import type { Piece } from '../repositories/pieces';
import { hasPage, insertPage, maybeFindPlanSeq, insertPlan } from '../repositories/prepared';
import { maybeFindVersion, maybeReadDocument, type Version } from '../repositories/versions';

/** Names the page of a version under corrections: equal exactly when the page would be. */
export const contentKeyOf = (registers: Registers): string =>
  createHash('sha256')
    .update(`${ENGRAVER}\n${scoreCorrectionsKey(registers)}`)
    .digest('hex')
    .slice(0, 32);

export const planKeyOf = (registers: Registers): string =>
  `${PLANNER} ${lensKey(registers)} ${contentKeyOf(registers)}`;

export const convertedFromOf = (version: Version): 'abc' | 'mei' | null =>
  version.kind === 'musicxml' ? null : version.kind;

/** What is being made, so that a shelf that is loaded twice does not ask twice. */
const underWay = new Set<string>();

/** What could not be made: a view of the shelf must not ask for it again and again. */
const failed = new Map<string, number>();
const TRIED_AGAIN_AFTER_MS = 3_600_000;

/** Returns at once; pages of all pieces come before plans. */
export function prepareLater(studioId: string, piece: Pick<Piece, 'id' | 'versionId' | 'editionId'>): void {
  const name = `${studioId} ${piece.versionId} ${piece.editionId}`;
  const failedAt = failed.get(name) ?? -Infinity;
  if (underWay.has(name) || Date.now() - failedAt < TRIED_AGAIN_AFTER_MS) return;
  underWay.add(name);
  prepare(studioId, piece)
    .catch((error: unknown) => {
      failed.set(name, Date.now());
      log.error({ err: error, piece: piece.id }, 'a piece could not be prepared');
    })
    .finally(() => underWay.delete(name));
}

async function prepare(studioId: string, piece: Pick<Piece, 'versionId' | 'editionId'>): Promise<void> {
  const wanted = await withTransaction(studioId, async (tx) => {
    const history = await listGesturesAfter(tx, piece.editionId, 0);
    const { registers } = replay(history.map((stored) => stored.gesture));
    const headSeq = history.at(-1)?.seq ?? 0;
    const contentKey = contentKeyOf(registers);
    const planKey = planKeyOf(registers);
    const page = await hasPage(tx, piece.versionId, contentKey);
    const plan = await maybeFindPlanSeq(tx, piece.editionId, piece.versionId, planKey);
    if (page && plan === headSeq) return null;
    const version = await maybeFindVersion(tx, piece.versionId);
    const bytes = await maybeReadDocument(tx, piece.versionId);
    if (!version || !bytes) return null;
    const input: DocumentInput = {
      bytes,
      partIndex: version.partIndex,
      uids: version.uids,
      convertedFrom: convertedFromOf(version),
      registers: [...registers],
    };
    return { input, headSeq, contentKey, planKey, page, plan: plan === headSeq };
  });
  if (!wanted) return;
  const { input, headSeq, contentKey, planKey } = wanted;
  const page = wanted.page ? null : backgroundPool.run('page', input, 1);
  const plan = wanted.plan ? null : backgroundPool.run('plan', input, 2);
  // Both wait in the queue together; a page that fails must not leave its plan unheard.
  plan?.catch(() => undefined);
  if (page) {
    const made = await page;
    await withTransaction(studioId, (tx) =>
      insertPage(tx, { studioId, versionId: piece.versionId, contentKey, ...made }),
    );
  }
  if (plan) {
    const made = await plan;
    await withTransaction(studioId, (tx) =>
      insertPlan(tx, { studioId, ...piece, headSeq, planKey, ...made }),
    );
  }
}
