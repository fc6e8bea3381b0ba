/** Edits of a text at offsets of the original: everything that is not touched stays as it was. */

export interface Splice {
  /** Offset into the original text. */
  readonly at: number;
  /** How many characters go; 0 for a pure insertion. */
  readonly remove: number;
  readonly insert: string;
}

/** All of `splices` outside a range of the text, which goes as a whole. */
export const withoutRange = (splices: readonly Splice[], from: number, to: number): readonly Splice[] => [
  ...splices.filter(({ at }) => at < from || at >= to),
  { at: from, remove: to - from, insert: '' },
];

/**
 * Applies splices. Several at one offset go in the order given, insertions before what is removed there.
 * @throws RangeError when two of them overlap
 */
export function applySplices(text: string, splices: readonly Splice[]): string {
  const ordered = [...splices].sort((a, b) => a.at - b.at || Number(a.remove > 0) - Number(b.remove > 0));
  const pieces: string[] = [];
  let position = 0;
  for (const splice of ordered) {
    if (splice.at < position) throw new RangeError(`splices overlap at ${splice.at}`);
    pieces.push(text.slice(position, splice.at), splice.insert);
    position = splice.at + splice.remove;
  }
  pieces.push(text.slice(position));
  return pieces.join('');
}
