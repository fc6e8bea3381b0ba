/** A stored document as whoever prepares a piece gets it. */
import { correctionsOf, type Registers } from '../core/fingering/edition/registers';
import { readMusicXmlText } from '../core/formats/musicxml/bytes';
import type { KnownUids } from '../core/formats/musicxml/readEvents';
import { readScore, type ScoreDocument } from '../core/formats/musicxml/readScore';

/** A document with everything that decides how it is read. */
export interface DocumentInput {
  readonly bytes: Uint8Array;
  readonly partIndex: number;
  readonly uids: KnownUids | null;
  readonly convertedFrom: 'abc' | 'mei' | null;
  /** Entries of the edition's registers. */
  readonly registers: readonly (readonly [string, string | number | boolean])[];
}

export const registersOf = (input: DocumentInput): Registers => new Map(input.registers) as Registers;

/** @throws Error for a document that was not imported before: a bug */
export function readInput(input: DocumentInput): { readonly text: string; readonly document: ScoreDocument } {
  const source = readMusicXmlText(input.bytes);
  const corrections = correctionsOf(registersOf(input));
  const document = source.ok ? readScore(source.value.text, { ...input, corrections }) : source;
  if (!source.ok || !document.ok) throw new Error('a stored document cannot be read');
  return { text: source.value.text, document: document.value };
}
