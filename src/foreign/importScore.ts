/** A file as a piece: what the shelf stores of it, or why not. Plain records, so that a thread can answer. */
import type { ImportError } from '../core/formats/importError';
import { writeMusicXmlBytes } from '../core/formats/musicxml/bytes';
import type { PartInfo } from '../core/formats/musicxml/parts';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';
import type { KnownUids } from '../core/formats/musicxml/readEvents';
import { pitchName } from '../core/music/pitch';
import { fail, ok, type Result } from '../core/result';
import { alignScores, type Alignment, type Doubtful } from '../core/score/alignment/align';
import { uidsOfNextVersion, type VersionUids } from '../core/score/alignment/nextUids';
import { readSource, type SourceKind } from './readSource';

export interface ImportedScore {
  readonly kind: SourceKind;
  /** The MusicXML that a file of another kind became. */
  readonly document: Uint8Array | null;
  readonly partIndex: number;
  readonly parts: readonly PartInfo[];
  readonly read: ScoreDocument['score'];
  readonly noteheads: number;
}

export async function importScore(
  bytes: Uint8Array,
  fileName: string,
  partIndex: number | null,
): Promise<Result<ImportedScore, ImportError>> {
  const source = await readSource(bytes, fileName);
  if (!source.ok) return source;
  const { kind } = source.value;
  const document = readScore(source.value.source.text, {
    partIndex,
    convertedFrom: kind === 'musicxml' ? null : kind,
  });
  if (!document.ok) return document;
  const { score, parts, events } = document.value;
  return ok({
    kind,
    document: kind === 'musicxml' ? null : writeMusicXmlBytes(source.value.source, source.value.source.text),
    partIndex: document.value.partIndex,
    parts,
    read: score,
    noteheads: [...events.notes, ...events.tablature].reduce(
      (most, note) => Math.max(most, Number(note.uid.slice(1))),
      0,
    ),
  });
}

/** A stored version, as far as it takes to read its score again. */
export interface StoredVersion {
  readonly bytes: Uint8Array;
  readonly kind: SourceKind;
  readonly partIndex: number;
  readonly uids: KnownUids | null;
}

export interface NextVersion {
  readonly imported: ImportedScore;
  readonly uids: VersionUids;
  readonly alignment: Pick<Alignment, 'added' | 'likeness' | 'octaveShift'> & {
    /** By their names in both versions, with the place in the newer one. */
    readonly doubtful: readonly (Doubtful & { readonly bar: string; readonly note: string })[];
    readonly lost: readonly { readonly uid: string; readonly bar: string; readonly note: string }[];
    readonly barsAdded: readonly string[];
    readonly barsGone: readonly string[];
  };
}

/** Below this share of notes found again a file is another piece. */
const LEAST_LIKENESS = 0.3;

export interface NewFile {
  readonly bytes: Uint8Array;
  readonly fileName: string;
  /** Null: the part that looks like a guitar. */
  readonly partIndex: number | null;
}

/** Reads a newer file of a piece and finds its notes again. `inked` are the notes that carry anything. */
export async function importNextVersion(
  old: StoredVersion,
  { bytes, fileName, partIndex }: NewFile,
  inked: readonly string[],
  used: { readonly nextNote: number; readonly nextBar: number },
): Promise<Result<NextVersion, ImportError>> {
  const imported = await importScore(bytes, fileName, partIndex);
  if (!imported.ok) return imported;
  const before = await readStored(old);
  const { read } = imported.value;
  const alignment = alignScores(before, read, new Set(inked));
  if (alignment.likeness < LEAST_LIKENESS) {
    return fail({ code: 'anotherPiece', share: alignment.likeness });
  }
  const barUids = before.measures.map((measure) => measure.uid);
  const uids = uidsOfNextVersion(alignment, imported.value.noteheads, read.measures.length, barUids, used);
  const pairedOld = new Set(alignment.bars.map((pair) => pair.old));
  const pairedNew = new Set(alignment.bars.map((pair) => pair.next));
  return ok({
    imported: imported.value,
    uids,
    alignment: {
      lost: alignment.lost.flatMap((uid) => lostPlaces(before, uid)),
      added: alignment.added.map((uid) => uids.notes[Number(uid.slice(1)) - 1]!),
      doubtful: alignment.doubtful.map((one) => ({
        ...one,
        ...placeOfNote(read, one.to),
        to: uids.notes[Number(one.to.slice(1)) - 1]!,
      })),
      likeness: alignment.likeness,
      octaveShift: alignment.octaveShift,
      barsAdded: read.measures.filter((_, k) => !pairedNew.has(k)).map((measure) => measure.number),
      barsGone: before.measures.filter((_, k) => !pairedOld.has(k)).map((measure) => measure.number),
    },
  });
}

/** A lost note with its tied noteheads, each at the place that it had. */
function lostPlaces(score: ScoreDocument['score'], uid: string) {
  const { tiedUids } = score.notes.find((one) => one.uid === uid)!;
  return [uid, ...tiedUids].map((one) => ({ uid: one, ...placeOfNote(score, uid) }));
}

function placeOfNote(score: ScoreDocument['score'], uid: string) {
  const note = score.notes.find((one) => one.uid === uid)!;
  return { bar: score.measures[note.measureIndex]!.number, note: pitchName(note.pitch) };
}

/** The score of a stored version, which has been read once before. */
async function readStored(version: StoredVersion): Promise<ScoreDocument['score']> {
  const source = await readSource(version.bytes, 'stored.musicxml');
  const document = source.ok
    ? readScore(source.value.source.text, { partIndex: version.partIndex, uids: version.uids })
    : source;
  if (!document.ok) throw new Error(`stored score: ${document.error.code}`);
  return document.value.score;
}
