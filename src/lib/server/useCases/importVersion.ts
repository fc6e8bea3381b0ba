/** A newer file of a piece: its notes are found again, and what the teacher set stays on them. */
import { listRegisters } from '../../../core/fingering/edition/registers';
import { fail, ok, type Result } from '../../../core/result';
import type { ImportError } from '../../../core/formats/importError';
import { summaryOf } from '../../pieceSummary';
import type { VersionReport } from '../../versionReport';
import { withTransaction } from '../db';
import { quickPool } from '../jobs/pool';
import { readEdition } from '../repositories/gestures';
import { maybeFindPiece, moveToVersion } from '../repositories/pieces';
import { findUsed, insertVersion, maybeFindVersion, maybeReadDocument } from '../repositories/versions';
import { type ImportedFile, orTooLong, type Owner } from './importPiece';

/** @throws DatabaseError when the database fails: nothing is changed then */
export async function importVersion(
  owner: Owner,
  pieceId: string,
  file: ImportedFile,
): Promise<Result<VersionReport, ImportError>> {
  const state = await withTransaction(owner.studioId, async (tx) => {
    const piece = await maybeFindPiece(tx, pieceId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    const bytes = version && (await maybeReadDocument(tx, version.id));
    if (!piece || !version || !bytes) return null;
    const used = await findUsed(tx, pieceId);
    return { piece, version, bytes, used, ...(await readEdition(tx, piece.editionId)) };
  });
  if (!state) return fail({ code: 'unknownPiece' });
  const { version, bytes, registers } = state;
  const marks = listRegisters(registers).filter(({ target }) => target.startsWith('n'));
  const old = { bytes, kind: 'musicxml', partIndex: version.partIndex, uids: version.uids } as const;
  const asked = quickPool.run(owner.studioId, 'nextVersion', {
    old,
    bytes: file.bytes,
    fileName: file.fileName,
    partIndex: file.partIndex ?? null,
    inked: [...new Set(marks.map((mark) => mark.target))],
    used: state.used,
  });
  const next = await orTooLong(asked);
  if (!next.ok) return next;
  const { imported, uids, alignment } = next.value;
  const there = new Set(uids.notes);
  const doubtOf = new Map(alignment.doubtful.map((one) => [one.from, one]));
  const placeOf = new Map(alignment.lost.map(({ uid, bar, note }) => [uid, { bar, note }]));
  const report: VersionReport = {
    likeness: alignment.likeness,
    octaveShift: alignment.octaveShift,
    barsAdded: [...alignment.barsAdded],
    barsGone: [...alignment.barsGone],
    notesAdded: alignment.added.length,
    notesGone: alignment.lost.length,
    carried: marks.filter((mark) => there.has(mark.target)).length,
    lost: marks
      .filter((mark) => !there.has(mark.target) && !doubtOf.has(mark.target))
      .map(({ target, attribute, value }) => ({
        uid: target,
        attribute,
        value,
        ...(placeOf.get(target) ?? { bar: '?', note: '?' }),
      })),
    check: marks.flatMap(({ target, attribute, value }) => {
      const doubtful = doubtOf.get(target);
      return doubtful ? [{ ...doubtful, attribute, value }] : [];
    }),
  };
  const moved = await withTransaction(owner.studioId, async (tx) => {
    // Above every version there ever was: the teacher may have gone back from a newer one.
    const number = state.used.number + 1;
    if (!(await moveToVersion(tx, pieceId, version.number, number, summaryOf(imported.read)))) return false;
    await insertVersion(tx, {
      ...owner,
      pieceId,
      number,
      fileName: file.fileName,
      kind: imported.kind,
      source: file.bytes,
      document: imported.document,
      partIndex: imported.partIndex,
      uids: { notes: uids.notes, bars: uids.bars },
      nextNote: uids.nextNote,
      nextBar: uids.nextBar,
      report,
    });
    return true;
  });
  return moved ? ok(report) : fail({ code: 'changedMeanwhile' });
}
