/** The engraved page as data: safe SVG and the boxes of what stands on it. All lengths in layout units. */

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface NoteBox extends Box {
  readonly uid: string;
  readonly system: number;
  /** The place kept free to the left of the notehead, if the note has no accidental there. */
  readonly keeper: Box | null;
}

export interface SystemBox {
  /** First and last staff line. */
  readonly staffTop: number;
  readonly staffBottom: number;
  readonly left: number;
  readonly right: number;
  /** Everything in the system that a mark must not touch. */
  readonly obstacles: readonly Box[];
  /** The drawing of the system, without its tempos. */
  readonly svg: string;
  readonly tempos: readonly MovableWords[];
}

/** Words over a system that give way to marks: the engraver does not know that there are any. */
export interface MovableWords {
  readonly box: Box;
  readonly svg: string;
}

/** Where a bar stands: from its first to its last line. */
export interface BarBox {
  readonly system: number;
  readonly left: number;
  readonly right: number;
}

export interface EngravedPage {
  readonly width: number;
  readonly height: number;
  /** Between two staff lines. */
  readonly staffSpace: number;
  /** The glyphs that the systems draw with. No drawing has ids of its own but these and the notes' uids. */
  readonly glyphs: string;
  /** The first system alone as a whole picture, for the shelf. */
  readonly firstLine: string;
  readonly notes: readonly NoteBox[];
  readonly systems: readonly SystemBox[];
  /** In the order of the music. */
  readonly bars: readonly BarBox[];
}

export const right = (box: Box): number => box.x + box.width;
export const bottom = (box: Box): number => box.y + box.height;

export const overlaps = (a: Box, b: Box): boolean =>
  a.x < right(b) && b.x < right(a) && a.y < bottom(b) && b.y < bottom(a);
