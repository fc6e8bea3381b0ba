/** Makes pages and plans ready in the background, as far as they are not there yet. */
import { createHash } from 'node:crypto';
import { lensKey, type Registers, scoreCorrectionsKey } from '../../../core/fingering/edition/registers';
import pLimit from 'p-limit';
import { ENGRAVER, PLANNER } from 'virtual:model-names';
import type { DocumentInput } from '../../../workers/readInput';
import { type Transaction, withTransaction } from '../db';
import { pagePool, planPool, quickPool } from '../jobs/pool';
import { addJob, type Job, type JobHandlers } from '../jobs/queue';
import { log } from '../log';
import { readEdition } from '../repositories/gestures';
import type { Piece } from '../repositories/pieces';
import { hasPage, insertPage, insertPlan, maybeFindPlanSeq } from '../repositories/prepared';
import { maybeFindVersion, maybeReadDocument, type Version } from '../repositories/versions';

/** Names the page of a version under corrections: equal exactly when the page would be. */
export const contentKeyOf = (registers: Registers): string =>
  digestOf(`${ENGRAVER}\n${scoreCorrectionsKey(registers)}`);

export const planKeyOf = (registers: Registers): string =>
  `${PLANNER} ${lensKey(registers)} ${contentKeyOf(registers)}`;

const digestOf = (text: string) => createHash('sha256').update(text).digest('hex').slice(0, 32);

export const convertedFromOf = (version: Version): 'abc' | 'mei' | null =>
  version.kind === 'musicxml' ? null : version.kind;

/** The first systems of a long piece, under the key of the whole. */
export const beginningKeyOf = (contentKey: string): string => `beginning ${contentKey}`;

/**
 * What the desk shows first of a piece that has just come in: whoever opens it at once need not wait for the engraver.
 * Nothing depends on it, so that a failure is only logged.
 */
export async function prepareBeginning(
  studioId: string,
  { versionId, editionId }: Pick<Piece, 'versionId' | 'editionId'>,
): Promise<void> {
  const job: Job = { studioId, versionId, editionId };
  try {
    const wanted = await withTransaction(studioId, (tx) => maybePageInput(tx, job));
    if (!wanted) return;
    const { isWhole, ...made } = await quickPool.run(studioId, 'beginning', wanted.input);
    const contentKey = isWhole ? wanted.contentKey : beginningKeyOf(wanted.contentKey);
    await withTransaction(studioId, (tx) => insertPage(tx, { ...job, contentKey, ...made }));
  } catch (error) {
    log.warn({ err: error }, 'the beginning of a piece could not be engraved');
  }
}

/** A shelf of hundreds that all lack something must not take every connection from those who save. */
const oneAtATime = pLimit(1);

/** Returns at once. */
export function prepareLater(
  studioId: string,
  { versionId, editionId }: Pick<Piece, 'versionId' | 'editionId'>,
): void {
  const job: Job = { studioId, versionId, editionId };
  oneAtATime(() => askFor(job)).catch((error: unknown) =>
    log.warn({ err: error }, 'a piece could not be asked for'),
  );
}

async function askFor(job: Job): Promise<void> {
  const { page, plan } = await withTransaction(job.studioId, (tx) => lackOf(tx, job));
  if (page) await addJob('page', job, `${job.versionId} ${page.contentKey}`);
  if (plan)
    await addJob('plan', job, `${job.editionId} ${job.versionId} ${plan.headSeq} ${digestOf(plan.planKey)}`);
}

/** What is not there of the edition as it stands now; null where it is. */
async function lackOf(tx: Transaction, { versionId, editionId }: Job) {
  const { registers, headSeq } = await readEdition(tx, editionId);
  const contentKey = contentKeyOf(registers);
  const planKey = planKeyOf(registers);
  const hasItsPage = await hasPage(tx, versionId, contentKey);
  const hasItsPlan = (await maybeFindPlanSeq(tx, editionId, versionId, planKey)) === headSeq;
  return {
    registers,
    page: hasItsPage ? null : { contentKey },
    plan: hasItsPlan ? null : { planKey, headSeq },
  };
}

/** Whatever has changed since the job was asked for, the edition is made ready as it stands when it begins. */
export const PREPARATIONS: JobHandlers = {
  page: async (job) => {
    const wanted = await withTransaction(job.studioId, (tx) => maybePageInput(tx, job));
    if (!wanted) return;
    const made = await pagePool.run(job.studioId, 'page', wanted.input);
    await withTransaction(job.studioId, (tx) =>
      insertPage(tx, { ...job, contentKey: wanted.contentKey, ...made }),
    );
  },
  plan: async (job) => {
    const wanted = await withTransaction(job.studioId, async (tx) => {
      const { registers, plan } = await lackOf(tx, job);
      const input = plan && (await maybeInput(tx, job.versionId, registers));
      return input && { ...plan, input };
    });
    if (!wanted) return;
    const { headSeq, planKey, input } = wanted;
    const made = await planPool.run(job.studioId, 'plan', input);
    await withTransaction(job.studioId, (tx) => insertPlan(tx, { ...job, headSeq, planKey, ...made }));
  },
};

/** Null where the page is there. */
async function maybePageInput(tx: Transaction, job: Job) {
  const { registers, page } = await lackOf(tx, job);
  const input = page && (await maybeInput(tx, job.versionId, registers));
  return input && { ...page, input };
}

/** Null for a version that is gone. */
async function maybeInput(
  tx: Transaction,
  versionId: string,
  registers: Registers,
): Promise<DocumentInput | null> {
  const version = await maybeFindVersion(tx, versionId);
  const bytes = await maybeReadDocument(tx, versionId);
  if (!version || !bytes) return null;
  return {
    bytes,
    partIndex: version.partIndex,
    uids: version.uids,
    convertedFrom: convertedFromOf(version),
    registers: [...registers],
  };
}
