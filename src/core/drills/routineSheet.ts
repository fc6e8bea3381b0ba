/** A routine on one sheet of paper: what is played, for how long, at which tempos, with boxes to tick. */
import { PAPER_LETTERING, textSvg } from '../copy/lettering';
import type { CopyPage } from '../copy/compose';
import { PAPERS, type Paper } from '../copy/paper';
import { ladderBetween, minutesOf, type Routine, type RoutineItem } from './routine';

const MARGIN_MM = 16;
const BASE = { title: 7, item: 4.4, line: 3.4, small: 3 } as const;
/** Heights in mm: the head, and what each drill takes at most. */
const HEAD_MM = 20;
const FOOT_MM = 12;
const LARGEST_ITEM_MM = 30;
const BOX_MM = 3.2;
const STEP_MM = 18;
/** A line of so many characters fits beside the minutes. */
const LINE_CHARACTERS = 92;

/** All of it is on the page whatever its length: rows are as high as there is room for. */
export function routineSheet(routine: Routine, paper: Paper = 'a4'): CopyPage {
  const { widthMm, heightMm } = PAPERS[paper];
  const room = heightMm - 2 * MARGIN_MM - HEAD_MM - FOOT_MM;
  const each = Math.min(LARGEST_ITEM_MM, room / Math.max(1, routine.items.length));
  const parts = [
    write(MARGIN_MM, MARGIN_MM + 8, routine.title, { size: BASE.title, face: 'bold' }),
    write(widthMm - MARGIN_MM, MARGIN_MM + 8, `${minutesOf(routine)} minutes`, {
      size: BASE.item,
      anchor: 'end',
    }),
    rule(widthMm, MARGIN_MM + 12, 0.4),
    ...routine.items.flatMap((item, k) => itemSvg(item, k, MARGIN_MM + HEAD_MM + k * each, widthMm)),
    write(MARGIN_MM, heightMm - MARGIN_MM, REST, { size: BASE.small, face: 'italic' }),
  ];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">${parts.join('')}</svg>`;
  return { widthMm, heightMm, svg };
}

/** Source: handbook 11. */
const REST =
  'Warm up first; a break at least every 20 to 30 minutes; stop at pain, numbness or tingling and see a health professional.';

function itemSvg(item: RoutineItem, k: number, top: number, widthMm: number): readonly string[] {
  const left = MARGIN_MM + 8;
  const lines = wrapped(item.focuses.length > 0 ? `One thing at a time: ${item.focuses.join('; ')}.` : '');
  return [
    ...(k > 0 ? [rule(widthMm, top - 5.2, 0.15)] : []),
    write(MARGIN_MM, top, `${k + 1}`, { size: BASE.item, face: 'bold' }),
    write(left, top, shortened(item.title), { size: BASE.item, face: 'bold' }),
    write(widthMm - MARGIN_MM, top, `${item.minutes} min`, { size: BASE.item, anchor: 'end' }),
    ...lines.map((line, n) => write(left, top + 4.8 + 4 * n, line, { size: BASE.line })),
    ...ladderBetween(item.from, item.to).map((bpm, n) =>
      tickBox(left + n * STEP_MM, top + 6.4 + 4 * lines.length, bpm),
    ),
  ];
}

/** A title that is too long for its line ends where the line does. */
const TITLE_CHARACTERS = 72;
const shortened = (title: string): string =>
  title.length <= TITLE_CHARACTERS ? title : `${title.slice(0, TITLE_CHARACTERS - 1).trimEnd()}…`;

/** At spaces; two lines at most, the rest is left out. */
function wrapped(text: string): readonly string[] {
  const lines: string[] = [];
  for (const word of text.split(' ').filter((one) => one !== '')) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length < LINE_CHARACTERS)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines.length <= 2 ? lines : [lines[0]!, `${lines[1]!} …`];
}

const write = (x: number, y: number, words: string, options: Parameters<typeof textSvg>[3]): string =>
  textSvg(PAPER_LETTERING, { x, y }, words, options);

const rule = (widthMm: number, y: number, weight: number): string =>
  `<line x1="${MARGIN_MM}" x2="${widthMm - MARGIN_MM}" y1="${y.toFixed(2)}" y2="${y.toFixed(2)}" stroke="#000" stroke-width="${weight}"/>`;

const tickBox = (x: number, y: number, bpm: number): string =>
  `<rect x="${x.toFixed(2)}" y="${(y - BOX_MM + 0.5).toFixed(2)}" width="${BOX_MM}" height="${BOX_MM}" fill="none" stroke="#000" stroke-width="0.25"/>` +
  write(x + BOX_MM + 1.5, y, String(bpm), { size: BASE.line });
