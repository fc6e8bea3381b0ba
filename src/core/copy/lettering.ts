/** How letters are set on a page: attributes of SVG text, which differ between a browser and a printed file. */
import type { Drawing } from '../engraving/markSvg';
import type { MarkState } from '../marks/mark';

export type Face = 'regular' | 'italic' | 'bold';

export interface Lettering {
  readonly mark: Drawing['lettering'];
  readonly words: (face: Face) => string;
  /** Family of notes and accidentals inside words. */
  readonly music: string;
}

/** Families by name: what embeds fonts has one file for each. */
export const PAPER_FAMILIES = {
  regular: 'Serif',
  italic: 'Serif Italic',
  bold: 'Serif SemiBold',
  black: 'Serif Black',
  blackItalic: 'Serif Black Italic',
  boldItalic: 'Serif SemiBold Italic',
  music: 'Music',
} as const;

const OF_STATE: Readonly<Record<MarkState, readonly [upright: string, slanted: string]>> = {
  pencil: [PAPER_FAMILIES.regular, PAPER_FAMILIES.italic],
  ink: [PAPER_FAMILIES.black, PAPER_FAMILIES.blackItalic],
  printed: [PAPER_FAMILIES.bold, PAPER_FAMILIES.boldItalic],
};

export const PAPER_LETTERING: Lettering = {
  mark: (state, slanted) => `font-family="${OF_STATE[state][slanted ? 1 : 0]}"`,
  words: (face) => `font-family="${PAPER_FAMILIES[face]}"`,
  music: PAPER_FAMILIES.music,
};

export interface TextOptions {
  readonly size: number;
  readonly face?: Face;
  readonly anchor?: 'start' | 'middle' | 'end';
  readonly colour?: string;
}

export function textSvg(
  lettering: Lettering,
  at: { readonly x: number; readonly y: number },
  words: string,
  { size, face = 'regular', anchor = 'start', colour = '#000' }: TextOptions,
): string {
  return `<text x="${at.x.toFixed(1)}" y="${at.y.toFixed(1)}" ${lettering.words(face)} font-size="${size.toFixed(1)}" text-anchor="${anchor}" fill="${colour}">${withMusic(escaped(words), lettering)}</text>`;
}

/** Notes and accidentals are not in text fonts. */
export const withMusic = (svg: string, { music }: Pick<Lettering, 'music'>): string =>
  svg.replace(
    /[\u2669-\u266F\u{1D15D}-\u{1D164}]+/gu,
    (signs) => `<tspan font-family="${music}">${signs}</tspan>`,
  );

export const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/** Chords are named with plain letters: sharps and flats as musicians write them. */
export const withSigns = (chord: string): string =>
  chord.replace(/([A-G])#/g, '$1♯').replace(/([A-G])b/g, '$1♭');

/** Width of a character in ems, on the average of this font: text is broken so that it never runs out. */
const CHARACTER = 0.5;

/** Words broken into lines of at most `width`. */
export function wrapped(words: string, size: number, width: number): readonly string[] {
  const most = Math.max(8, Math.floor(width / (CHARACTER * size)));
  const lines: string[] = [];
  for (const word of words.split(/\s+/).filter(Boolean)) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= most)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
