/** Back from a newer file, in one step: the piece is what it was, and so are the marks that the newer file moved. */
import { randomUUID } from 'node:crypto';
import { type Attribute, type Value } from '../../../core/fingering/edition/attributes';
import type { Operation } from '../../../core/fingering/edition/operation';
import { type Registers, valueAt } from '../../../core/fingering/edition/registers';
import { fail, ok, type Result } from '../../../core/result';
import type { ImportError } from '../../../core/formats/importError';
import { summaryOf } from '../../pieceSummary';
import type { VersionReport } from '../../versionReport';
import { withTransaction } from '../db';
import { quickPool } from '../jobs/pool';
import { insertGestures, maybeLockHead, readEdition } from '../repositories/gestures';
import { maybeFindPiece, moveToVersion } from '../repositories/pieces';
import { maybeFindVersion, maybeFindVersionOfPiece, maybeReadDocument } from '../repositories/versions';
import { orTooLong, type Owner } from './importPiece';

/**
 * @param number of the version to leave; the one before it becomes the current one again
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function leaveVersion(
  owner: Owner,
  pieceId: string,
  number: number,
): Promise<Result<{ readonly number: number }, ImportError>> {
  const before = await withTransaction(owner.studioId, async (tx) => {
    const older = await maybeFindVersionOfPiece(tx, pieceId, number - 1);
    const bytes = older && (await maybeReadDocument(tx, older.id));
    return older && bytes ? { older, bytes } : null;
  });
  if (!before) return fail({ code: 'unknownPiece' });
  const { older, bytes } = before;
  const ask = { bytes, fileName: 'stored.musicxml', partIndex: older.partIndex };
  const read = await orTooLong(quickPool.run(owner.studioId, 'import', ask));
  if (!read.ok) return read;
  const moved = await withTransaction(owner.studioId, async (tx) => {
    const piece = await maybeFindPiece(tx, pieceId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    if (!piece || version?.number !== number) return false;
    const headSeq = await maybeLockHead(tx, piece.editionId);
    if (headSeq === null) return false;
    const { registers } = await readEdition(tx, piece.editionId);
    const operations = version.report ? restorations(registers, version.report) : [];
    if (operations.length > 0)
      await insertGestures(tx, owner, piece.editionId, headSeq, [{ id: randomUUID(), operations }]);
    return moveToVersion(tx, pieceId, number, older.number, summaryOf(read.value.read));
  });
  return moved ? ok({ number: older.number }) : fail({ code: 'changedMeanwhile' });
}

/** Marks that were taken over or dropped go back to the notes that they were on. */
function restorations(registers: Registers, { check, lost }: VersionReport): Operation[] {
  const marks = [
    ...check.map(({ from, to, attribute, value }) => ({ uid: from, to, attribute, value })),
    ...lost.map((mark) => ({ ...mark, to: null })),
  ];
  return marks.flatMap(({ uid, to, attribute: name, value }): Operation[] => {
    const attribute = name as Attribute;
    if (valueAt(registers, uid, attribute) !== null) return [];
    const there: Value = to === null ? null : valueAt(registers, to, attribute);
    const back: Operation = { v: 2, target: uid, attribute, before: null, after: there ?? value };
    return there === null ? [back] : [{ v: 2, target: to!, attribute, before: there, after: null }, back];
  });
}
