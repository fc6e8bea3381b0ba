/** From stored bytes to text and back without losing one of them. */
import { fail, ok, type Result } from '../../result';
import type { ImportError } from '../importError';
import { isZip, readArchive, replaceInArchive } from './archive';
import { encode, maybeDecode, type TextEncoding } from './encoding';

export { zipScore } from './archive';

export interface MusicXmlText {
  readonly text: string;
  readonly encoding: TextEncoding;
  readonly byteOrderMark: boolean;
  /** The archive that the text came from and its place in it; null for a plain file. */
  readonly archive: { readonly bytes: Uint8Array; readonly path: string } | null;
}

/** No score needs more; a bomb does. */
export const LARGEST_MEGABYTES = 20;
const LARGEST_BYTES = LARGEST_MEGABYTES * 1024 * 1024;

/** Reads .musicxml, .xml and .mxl by their content; the file's name is not needed. */
export function readMusicXmlText(bytes: Uint8Array): Result<MusicXmlText, ImportError> {
  if (bytes.length === 0) return fail({ code: 'empty' });
  if (bytes.length > LARGEST_BYTES) {
    return fail({ code: 'tooLarge', megabytes: Math.ceil(bytes.length / 1024 / 1024) });
  }
  if (!isZip(bytes)) return decoded(bytes, null);
  const inner = readArchive(bytes, LARGEST_BYTES);
  return inner.ok ? decoded(inner.value.bytes, { bytes, path: inner.value.path }) : inner;
}

/** The same file with another text in it. */
export function writeMusicXmlBytes(source: MusicXmlText, text: string): Uint8Array {
  const inner = encode({ ...source, text });
  return source.archive ? replaceInArchive(source.archive.bytes, source.archive.path, inner) : inner;
}

function decoded(bytes: Uint8Array, archive: MusicXmlText['archive']): Result<MusicXmlText, ImportError> {
  const content = maybeDecode(bytes);
  return content ? ok({ ...content, archive }) : fail({ code: 'encoding' });
}
