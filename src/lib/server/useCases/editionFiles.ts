/** Editions as files: out of the shelf, onto it, and onto a piece that is there already. */
import { randomUUID } from 'node:crypto';
import { type EditionFile, editionFile, readEditionFile } from '../../../core/formats/edition/editionFile';
import type { ImportError } from '../../../core/formats/importError';
import { type Gesture, MOST_OPERATIONS, type Operation } from '../../../core/fingering/edition/operation';
import { type Registers, valueAt } from '../../../core/fingering/edition/registers';
import { fail, ok, type Result } from '../../../core/result';
import { readInput } from '../../../workers/readInput';
import { type Transaction, withTransaction } from '../db';
import { quickPool } from '../jobs/pool';
import { insertGestures, maybeLockHead, readEdition } from '../repositories/gestures';
import { maybeFindPieceOfEdition } from '../repositories/pieces';
import { maybeFindVersion, maybeReadDocument, maybeReadSource } from '../repositories/versions';
import { type ImportedPiece, orTooLong, type Owner, storePiece } from './importPiece';
import { convertedFromOf } from './prepare';

/**
 * Null when this studio has no such edition.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function maybeExportEdition(owner: Owner, editionId: string): Promise<EditionFile | null> {
  return withTransaction(owner.studioId, async (tx) => {
    const piece = await maybeFindPieceOfEdition(tx, editionId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    const source = version && (await maybeReadSource(tx, version.id));
    const bytes = version && (await maybeReadDocument(tx, version.id));
    if (!piece || !version || !source || !bytes) return null;
    const { registers } = await readEdition(tx, editionId);
    const input = { bytes, partIndex: version.partIndex, uids: version.uids, registers: [...registers] };
    return editionFile({
      title: piece.title,
      score: {
        kind: version.kind,
        fileName: version.fileName,
        source: source.toString('base64'),
        document: version.kind === 'musicxml' ? null : bytes.toString('base64'),
        part: version.partIndex,
        noteNames: version.uids ? [...version.uids.notes] : null,
        barNames: version.uids ? [...version.uids.bars] : null,
      },
      read: readInput({ ...input, convertedFrom: convertedFromOf(version) }).document.score,
      registers,
    });
  });
}

/**
 * An edition file as a new piece with its marks, in one step.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function importEdition(
  owner: Owner,
  bytes: Uint8Array,
): Promise<Result<ImportedPiece, ImportError>> {
  const edition = readEditionFile(new TextDecoder().decode(bytes));
  if (!edition.ok) return edition;
  const { score, title, marks } = edition.value;
  const file = {
    fileName: score.fileName,
    bytes: Buffer.from(score.source, 'base64'),
    partIndex: score.part,
  };
  const imported = await orTooLong(quickPool.run(owner.studioId, 'import', file));
  if (!imported.ok) return imported;
  const { noteheads, read } = imported.value;
  if (
    (score.noteNames?.length ?? noteheads) !== noteheads ||
    (score.barNames?.length ?? read.measures.length) !== read.measures.length
  ) {
    const detail = `it names ${score.noteNames?.length} notes and the score has ${noteheads}`;
    return fail({ code: 'edition', place: 'score.noteNames', detail });
  }
  const uids = score.noteNames && score.barNames ? { notes: score.noteNames, bars: score.barNames } : null;
  const stored = await withTransaction(owner.studioId, async (tx) => {
    const piece = await storePiece(tx, owner, file, imported.value, { title, uids });
    await appendMarks(tx, owner, piece.editionId, marks, new Map());
    return piece;
  });
  return ok({ ...stored, parts: imported.value.parts, partIndex: imported.value.partIndex });
}

/** Adds what differs from `registers` at the head, a part at a time where it is much. Returns how many marks that were. */
async function appendMarks(
  tx: Transaction,
  owner: Owner,
  editionId: string,
  marks: EditionFile['marks'],
  registers: Registers,
): Promise<number> {
  const operations: Operation[] = marks.flatMap(({ target, attribute, value }) => {
    const before = valueAt(registers, target, attribute);
    return before === value ? [] : [{ v: 2, target, attribute, before, after: value }];
  });
  if (operations.length === 0) return 0;
  const headSeq = await maybeLockHead(tx, editionId);
  if (headSeq === null) throw new Error('an edition without a head');
  const gestures: Gesture[] = [];
  for (let from = 0; from < operations.length; from += MOST_OPERATIONS)
    gestures.push({ id: randomUUID(), operations: operations.slice(from, from + MOST_OPERATIONS) });
  await insertGestures(tx, owner, editionId, headSeq, gestures);
  return operations.length;
}

/**
 * The marks of another edition of the same piece, put on the notes that are the same music. Notes that carry ink
 * already keep it.
 * @throws DatabaseError when the database fails: nothing is changed then
 */
export async function takeOverMarks(
  owner: Owner,
  editionId: string,
  bytes: Uint8Array,
): Promise<Result<{ readonly taken: number; readonly lost: number }, ImportError>> {
  const edition = readEditionFile(new TextDecoder().decode(bytes));
  if (!edition.ok) return edition;
  const { score } = edition.value;
  const marks = edition.value.marks.filter((mark) => mark.target.startsWith('n'));
  const aligned = await withTransaction(owner.studioId, async (tx) => {
    const piece = await maybeFindPieceOfEdition(tx, editionId);
    const version = piece && (await maybeFindVersion(tx, piece.versionId));
    const document = version && (await maybeReadDocument(tx, version.id));
    return version && document ? { version, document } : null;
  });
  if (!aligned) return fail({ code: 'unknownPiece' });
  const { version, document } = aligned;
  const asked = quickPool.run(owner.studioId, 'nextVersion', {
    old: {
      bytes: Buffer.from(score.document ?? score.source, 'base64'),
      kind: 'musicxml',
      partIndex: score.part,
      uids: score.noteNames && score.barNames ? { notes: score.noteNames, bars: score.barNames } : null,
    },
    bytes: document,
    fileName: 'current.musicxml',
    partIndex: version.partIndex,
    inked: [...new Set(marks.map((mark) => mark.target))],
    // Far above every name that either side uses, so that unpaired notes meet nothing.
    used: { nextNote: 5_000_000, nextBar: 500_000 },
  });
  const next = await orTooLong(asked);
  if (!next.ok) return next;
  const own = new Map(
    next.value.uids.notes.map((uid, k) => [uid, version.uids?.notes[k] ?? `n${k + 1}`] as const),
  );
  const fitting = marks.flatMap((mark) => {
    const target = own.get(mark.target);
    return target ? [{ ...mark, target }] : [];
  });
  const taken = await withTransaction(owner.studioId, async (tx) => {
    // Nobody may save between this reading and the writing: what stands there then would not be what it was put on.
    if ((await maybeLockHead(tx, editionId)) === null) return 0;
    const { registers } = await readEdition(tx, editionId);
    const free = fitting.filter((mark) => valueAt(registers, mark.target, mark.attribute) === null);
    return appendMarks(tx, owner, editionId, free, registers);
  });
  return ok({ taken, lost: marks.length - fitting.length });
}
