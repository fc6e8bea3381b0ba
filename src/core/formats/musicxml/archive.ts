/** Compressed scores (.mxl) and nothing else of what an archive may hold. */
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { fail, ok, type Result } from '../../result';
import type { ImportError } from '../importError';
import { descendants, parseXml } from './xmlTree';

const CONTAINER = 'META-INF/container.xml';
const MOST_ENTRIES = 2000;

export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

export interface ArchivedScore {
  readonly path: string;
  readonly bytes: Uint8Array;
}

/** Finds the score that the container names; without a container, the only score at the top. */
export function readArchive(bytes: Uint8Array, mostBytes: number): Result<ArchivedScore, ImportError> {
  const names = namesIn(bytes);
  if (!names) return fail({ code: 'notZip' });
  const path = names.includes(CONTAINER) ? pathNamedBy(bytes, mostBytes) : loneScore(names);
  if (path === null || !names.includes(path)) return fail({ code: 'zipWithoutScore' });
  if (isOdd(path)) return fail({ code: 'zipPath', path });
  return inflateOne(bytes, path, mostBytes);
}

/** The archive with another text in the place of its score; everything else as it was. */
export function replaceInArchive(archive: Uint8Array, path: string, inner: Uint8Array): Uint8Array {
  return zipSync({ ...unzipSync(archive), [path]: inner });
}

/** A compressed score around one document. Source: MusicXML 4.0, "Compressed .mxl files". */
export function zipScore(documentBytes: Uint8Array): Uint8Array {
  const container =
    '<?xml version="1.0" encoding="UTF-8"?>\n<container><rootfiles>' +
    '<rootfile full-path="score.musicxml" media-type="application/vnd.recordare.musicxml+xml"/>' +
    '</rootfiles></container>\n';
  return zipSync({
    mimetype: [strToU8('application/vnd.recordare.musicxml'), { level: 0 }],
    [CONTAINER]: strToU8(container),
    'score.musicxml': documentBytes,
  });
}

/** Nothing is ever written under an archive's names; a path that climbs is a sign of a bad file all the same. */
const isOdd = (path: string) => /^[/\\]|\\|(^|\/)\.\.(\/|$)|^[a-z]:/i.test(path);

function namesIn(bytes: Uint8Array): readonly string[] | null {
  const names: string[] = [];
  try {
    unzipSync(bytes, { filter: ({ name }) => (names.push(name), false) });
  } catch {
    return null;
  }
  return names.length > MOST_ENTRIES ? null : names;
}

function loneScore(names: readonly string[]): string | null {
  const scores = names.filter((name) => /^[^/]+\.(musicxml|xml)$/i.test(name));
  return scores.length === 1 ? scores[0]! : null;
}

function pathNamedBy(bytes: Uint8Array, mostBytes: number): string | null {
  const container = inflateOne(bytes, CONTAINER, mostBytes);
  const tree = container.ok ? parseXml(strFromU8(container.value.bytes)) : container;
  if (!tree.ok) return null;
  for (const element of descendants(tree.value)) {
    if (element.name === 'rootfile') return element.attributes['full-path'] ?? null;
  }
  return null;
}

/**
 * Inflates one entry. The archive states the size up front: above the limit nothing is inflated, and fflate
 * inflates into a buffer of exactly the stated size, so an entry that lies about it fails or comes out cut.
 */
function inflateOne(bytes: Uint8Array, path: string, mostBytes: number): Result<ArchivedScore, ImportError> {
  let stated = 0;
  try {
    const files = unzipSync(bytes, {
      filter: (file) => {
        if (file.name !== path) return false;
        stated = Math.max(stated, file.originalSize);
        return file.originalSize <= mostBytes;
      },
    });
    const inner = files[path];
    if (inner) return ok({ path, bytes: inner });
    return fail({ code: 'tooLarge', megabytes: Math.ceil(stated / 1024 / 1024) });
  } catch {
    return fail({ code: 'notZip' });
  }
}
