/** From stored bytes to text and back without losing one of them. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { fail, ok, type Result } from '../../result';
import type { ImportError } from '../importError';
import { childNamed, descendants, parseXml } from './xmlTree';

export interface MusicXmlText {
  readonly text: string;
  readonly byteOrderMark: boolean;
  /** The archive that the text came from and its place in it; null for a plain file. */
  readonly archive: { readonly bytes: Uint8Array; readonly path: string } | null;
}

/** No score needs more; a bomb does. */
export const LARGEST_MEGABYTES = 20;
const LARGEST_BYTES = LARGEST_MEGABYTES * 1024 * 1024;

const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** Reads .musicxml, .xml (UTF-8) and .mxl by their content; the file's name is not needed. */
export function readMusicXmlText(bytes: Uint8Array): Result<MusicXmlText, ImportError> {
  if (bytes.length === 0) return fail({ code: 'empty' });
  if (bytes.length > LARGEST_BYTES) return fail(tooLarge(bytes.length));
  if (!isZip(bytes)) return decode(bytes, null);

  const files = unzipWithin(bytes, LARGEST_BYTES);
  if (!files.ok) return files;
  const path = scorePathIn(files.value);
  const inner = path === null ? undefined : files.value[path];
  return path === null || !inner ? fail({ code: 'zipWithoutScore' }) : decode(inner, { bytes, path });
}

/** The same file with another text in it. */
export function writeMusicXmlBytes(source: MusicXmlText, text: string): Uint8Array {
  const inner = strToU8((source.byteOrderMark ? '\uFEFF' : '') + text);
  if (!source.archive) return inner;
  return zipSync({ ...unzipSync(source.archive.bytes), [source.archive.path]: inner });
}

/** A compressed score (.mxl) around one document. Source: MusicXML 4.0, "Compressed .mxl files". */
export function zipScore(documentBytes: Uint8Array): Uint8Array {
  const container =
    '<?xml version="1.0" encoding="UTF-8"?>\n<container><rootfiles>' +
    '<rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/>' +
    '</rootfiles></container>\n';
  return zipSync({
    mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
    'META-INF/container.xml': strToU8(container),
    'score.musicxml': documentBytes,
  });
}

const tooLarge = (bytes: number): ImportError => ({
  code: 'tooLarge',
  megabytes: Math.ceil(bytes / 1024 / 1024),
});

function decode(bytes: Uint8Array, archive: MusicXmlText['archive']): Result<MusicXmlText, ImportError> {
  try {
    const text = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes);
    const byteOrderMark = text.startsWith('\uFEFF');
    return ok({ text: byteOrderMark ? text.slice(1) : text, byteOrderMark, archive });
  } catch {
    return fail({ code: 'encoding' });
  }
}

function unzipWithin(
  bytes: Uint8Array,
  mostBytes: number,
): Result<Readonly<Record<string, Uint8Array>>, ImportError> {
  let total = 0;
  try {
    const files = unzipSync(bytes, {
      // The archive states its sizes up front; nothing is inflated once they pass the limit.
      filter: (file) => (total += file.originalSize) <= mostBytes,
    });
    return total > mostBytes ? fail(tooLarge(total)) : ok(files);
  } catch {
    return fail({ code: 'notZip' });
  }
}

function scorePathIn(files: Readonly<Record<string, Uint8Array>>): string | null {
  const container = files['META-INF/container.xml'];
  if (!container) return null;
  const tree = parseXml(strFromU8(container));
  if (!tree.ok) return null;
  for (const element of descendants(tree.value)) {
    if (element.name === 'rootfile') return element.attributes['full-path'] ?? null;
  }
  return childNamed(tree.value, 'rootfile')?.attributes['full-path'] ?? null;
}
