/** A file of any kind that Oculon reads, as the MusicXML document that everything else works on. */
import type { ImportError } from '../core/formats/importError';
import { type MusicXmlText, readMusicXmlText } from '../core/formats/musicxml/bytes';
import { ok, type Result } from '../core/result';

export type SourceKind = 'musicxml' | 'abc' | 'mei';

export interface SourceDocument {
  readonly kind: SourceKind;
  /** The document, and where it stands in the file; for a converted one, as a plain file of its own. */
  readonly source: MusicXmlText;
}

/** Goes by the content; the name only tells ABC from other text. */
export async function readSource(
  bytes: Uint8Array,
  fileName: string,
): Promise<Result<SourceDocument, ImportError>> {
  const text = readMusicXmlText(bytes);
  if (!text.ok) return text;
  const kind = kindOf(text.value.text, fileName);
  if (kind === 'musicxml') return ok({ kind, source: text.value });
  // Readers of other kinds are large: each is loaded when a file needs it.
  const converted =
    kind === 'abc'
      ? (await import('./abc')).musicXmlFromAbc(text.value.text)
      : await (await import('./mei')).musicXmlFromMei(text.value.text);
  return converted.ok ? ok({ kind, source: plainDocument(converted.value) }) : converted;
}

/** A document as a file of its own. */
export const plainDocument = (text: string): MusicXmlText => ({
  text,
  encoding: 'utf-8',
  byteOrderMark: false,
  archive: null,
});

function kindOf(text: string, fileName: string): SourceKind {
  const start = text.slice(0, 4000);
  if (/<mei[\s>]/.test(start)) return 'mei';
  if (!/^\s*</.test(start) && (/\.abc$/i.test(fileName) || /^X:\s*\d/m.test(start))) return 'abc';
  return 'musicxml';
}

export const READABLE_FILE = /\.(musicxml|xml|mxl|mei|abc)$/i;
