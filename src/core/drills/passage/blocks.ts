/** Notes that lie under the hand at once, as chords: an arpeggio as blocks. Source: handbook 9, "blocks". */
import { momentsOf, type Passage, type PassageNote, barAt } from './passage';
import { drillNote } from './cut';
import type { DrillNote } from '../drill';

export interface Block {
  readonly at: number;
  /** From the lowest-pitched string up. */
  readonly notes: readonly DrillNote[];
}

/** A new one begins with each bar, and where a string or a finger is wanted somewhere else. */
export function blocksOf(passage: Passage): readonly Block[] {
  const blocks: { at: number; bar: string; notes: PassageNote[] }[] = [];
  for (const { at, notes } of momentsOf(passage)) {
    const bar = barAt(passage, at).number;
    const open = blocks.at(-1);
    if (open?.bar === bar && notes.every((note) => fitsIn(open.notes, note))) open.notes.push(...notes);
    else blocks.push({ at, bar, notes: [...notes] });
  }
  return blocks.map(({ at, notes }) => ({ at, notes: onceEach(notes).map((note) => drillNote(note)) }));
}

const fitsIn = (block: readonly PassageNote[], note: PassageNote): boolean =>
  block.every(
    (other) =>
      (other.string !== note.string || other.fret === note.fret) &&
      (!note.finger || other.finger !== note.finger || other.fret === note.fret),
  );

/** By string, lowest first; a string once. */
const onceEach = (notes: readonly PassageNote[]): readonly PassageNote[] =>
  [...new Map(notes.map((note) => [note.string, note])).values()].sort((a, b) => b.string! - a.string!);
