/** Bytes to text and back in the encodings that notation programs write. */
import { strToU8 } from 'fflate';

export type TextEncoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'latin-1';

export interface EncodedText {
  readonly text: string;
  readonly encoding: TextEncoding;
  readonly byteOrderMark: boolean;
}

/** By byte order mark, by the zero bytes of UTF-16 or by the XML declaration; null when the bytes do not fit. */
export function maybeDecode(bytes: Uint8Array): EncodedText | null {
  const encoding = encodingOf(bytes);
  try {
    const raw = encoding === 'latin-1' ? fromLatin1(bytes) : fatal(encoding, bytes);
    const byteOrderMark = raw.startsWith('\uFEFF');
    return { text: byteOrderMark ? raw.slice(1) : raw, encoding, byteOrderMark };
  } catch {
    return null;
  }
}

/** The inverse of `maybeDecode`; a character that the encoding lacks becomes a numeric reference. */
export function encode({ text, encoding, byteOrderMark }: EncodedText): Uint8Array {
  const full = (byteOrderMark ? '\uFEFF' : '') + text;
  if (encoding === 'utf-8') return strToU8(full);
  if (encoding === 'latin-1') return toLatin1(full);
  const bytes = new Uint8Array(full.length * 2);
  const view = new DataView(bytes.buffer);
  for (let k = 0; k < full.length; k++) view.setUint16(2 * k, full.charCodeAt(k), encoding === 'utf-16le');
  return bytes;
}

function encodingOf(bytes: Uint8Array): TextEncoding {
  const [a, b] = bytes;
  if ((a === 0xff && b === 0xfe) || (a === 0x3c && b === 0)) return 'utf-16le';
  if ((a === 0xfe && b === 0xff) || (a === 0 && b === 0x3c)) return 'utf-16be';
  const declaration = fromLatin1(bytes.subarray(0, 120));
  return /^<\?xml[^>]*encoding=["'](iso-8859-1|latin-?1|windows-1252|us-ascii)["']/i.test(declaration)
    ? 'latin-1'
    : 'utf-8';
}

const fatal = (encoding: 'utf-8' | 'utf-16le' | 'utf-16be', bytes: Uint8Array) => {
  if (encoding !== 'utf-8' && bytes.length % 2 === 1)
    throw new RangeError('UTF-16 text that ends in half a unit');
  return new TextDecoder(encoding, { fatal: true, ignoreBOM: true }).decode(bytes);
};

function fromLatin1(bytes: Uint8Array): string {
  let text = '';
  for (let k = 0; k < bytes.length; k += 8192) {
    text += String.fromCharCode(...bytes.subarray(k, k + 8192));
  }
  return text;
}

function toLatin1(text: string): Uint8Array {
  const escaped = text.replace(/[^\u0000-\u00ff]/gu, (character) => `&#${character.codePointAt(0)};`);
  return Uint8Array.from(escaped, (character) => character.charCodeAt(0));
}
