/** A small picture of the fretboard with a grip, for paper. */
import type { BoardPicture } from '../engraving/fretboardPicture';
import { roman } from '../music/roman';
import { type Lettering, textSvg } from './lettering';

const RADIUS_MM = 4.2;
/** Around the board, in its own mm. */
const EDGE = { x: 11, top: 7, bottom: 12 } as const;

/** A mm of the board on paper: five frets in first position are as wide as a third of a page. */
export const BOARD_SCALE = 0.3;

/** In mm of the board, with its edges. */
export const boardSize = ({ right, bottom }: BoardPicture) => ({
  width: right + 2 * EDGE.x,
  height: bottom + EDGE.top + EDGE.bottom,
});

/** @param scale a mm of the board in the units of the page */
export function boardSvg(picture: BoardPicture, scale: number, lettering: Lettering): string {
  const n = (mm: number) => mm.toFixed(2);
  const line = (x1: number, y1: number, x2: number, y2: number, thick: number) =>
    `<path d="M${n(x1)} ${n(y1)} L${n(x2)} ${n(y2)}" stroke="#000" stroke-width="${n(thick)}" fill="none"/>`;
  const wires = picture.wires.map(({ fret, x, top, bottom }) =>
    line(x, top - 2, x, bottom + 2, fret === 0 ? 2.2 : 0.6),
  );
  const strings = picture.strings.map(({ string, x1, y1, x2, y2 }) =>
    line(x1, y1, x2, y2, 0.3 + 0.1 * string),
  );
  const numerals = picture.wires.slice(1).map(({ fret, x }, k) =>
    textSvg(lettering, { x: (x + picture.wires[k]!.x) / 2, y: picture.bottom + 10 }, roman(fret), {
      size: 6,
      anchor: 'middle',
    }),
  );
  const tips = picture.tips.map(({ finger, x, y, struck }) =>
    finger === 0
      ? `<circle cx="${n(x)}" cy="${n(y)}" r="2.4" fill="#fff" stroke="#000" stroke-width="0.9"/>`
      : `<circle cx="${n(x)}" cy="${n(y)}" r="${RADIUS_MM}" fill="${struck ? '#000' : '#fff'}" stroke="#000" stroke-width="0.9"/>` +
        textSvg(lettering, { x, y: y + 2.1 }, String(finger), {
          size: 6.4,
          face: 'bold',
          anchor: 'middle',
          colour: struck ? '#fff' : '#000',
        }),
  );
  return `<g data-part="board" transform="scale(${scale.toFixed(4)}) translate(${EDGE.x}, ${EDGE.top})">${[...wires, ...strings, ...numerals, ...tips].join('')}</g>`;
}
