/**
 * The pages of a copy as drawing: title, systems shared out over the pages, and what was asked for after the music. Each
 * page is one SVG in the engraver's units, whatever shows it or prints it.
 */
import type { EngravedPage } from '../engraving/page';
import type { Drawing } from '../engraving/markSvg';
import { type SystemBlock, systemBlocks } from './blocks';
import { breakPages } from './breakPages';
import { chordSheet } from './chordSheet';
import { hotSpotSheet } from './hotSpotSheet';
import { legendOf } from './legend';
import { type Lettering, textSvg, wrapped } from './lettering';
import { type CopyOptions, type Sheet, sheetOfPaper, UNITS_IN_A_SPACE } from './paper';
import { barsNamed } from './rowTexts';
import type { CopySource } from './source';
import type { Density } from '../marks/style';

export interface CopyPage {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly svg: string;
}

export interface Setting {
  readonly options: CopyOptions;
  readonly density: Density;
  /** Printed numbers of the bars that are counted; empty for all. */
  readonly countedBars: string;
  readonly lettering: Lettering;
  /** Notes that are not marked as on an earlier copy. */
  readonly changed?: ReadonlySet<string>;
}

const BLACK: Drawing['colours'] = { pencil: '#000', ink: '#000', conflict: '#000', paper: '#fff' };
const SPACE = UNITS_IN_A_SPACE;
/** Sizes of words in mm: they stay the same however large the music is. */
const WORDS_MM = { title: 7.2, subtitle: 3.5, small: 3.1, heading: 4.6, text: 3.7 } as const;
/** Between systems, in staff spaces: at least, and as much as a page that is not full may add. */
const GAP = 1.2;
const MOST_ADDED = 5;
const NOTHING_CHANGED: ReadonlySet<string> = new Set();
const REST_QUARTERS = 0.5;

/** The systems as they are to be drawn. */
export function blocksOf(
  engraved: EngravedPage,
  source: CopySource,
  { options, lettering, countedBars, changed }: Setting,
): readonly SystemBlock[] {
  const marks =
    options.looks === 'alike'
      ? source.marks.map((mark) => ({ ...mark, state: 'ink' as const, departs: null }))
      : source.marks;
  const alike = {
    ...lettering,
    mark: (_state: unknown, slanted: boolean) => lettering.mark(slanted ? 'pencil' : 'printed', slanted),
  };
  return systemBlocks(
    engraved,
    { ...source, marks },
    {
      include: options.include,
      counted: barsNamed(source.score, countedBars),
      changed: changed ?? NOTHING_CHANGED,
      drawing: {
        colours: BLACK,
        clearing: 'field',
        lettering: options.looks === 'alike' ? alike.mark : lettering.mark,
      },
      lettering,
    },
  );
}

export function composeCopy(
  engraved: EngravedPage,
  source: CopySource,
  setting: Setting,
): readonly CopyPage[] {
  const { options, lettering } = setting;
  const sheet = sheetOfPaper(options);
  const blocks = blocksOf(engraved, source, setting);
  const bodies = [...musicPages(blocks, source, sheet, lettering)];
  const after = afterMusic(source, setting, sheet);
  // A short list goes under the last system, if there is room.
  const last = bodies.at(-1);
  for (const one of after) {
    const under = one.mayFollow && last === bodies.at(-1) ? last : undefined;
    if (under && under.end + one.gap + one.height <= sheet.bottom - footHeight(sheet)) {
      under.parts.push(moved(one.svg, sheet.left, under.end + one.gap));
      under.end += one.gap + one.height;
    } else
      bodies.push({
        parts: [moved(one.svg, sheet.left, sheet.top + runningHeight(sheet))],
        end: sheet.bottom,
      });
  }
  return bodies.map(({ parts }, k) =>
    pageOf(sheet, engraved.glyphs, [...parts, furniture(source, sheet, lettering, k, bodies.length)]),
  );
}

/** A page while it is filled: what stands on it, and where that ends. */
interface Body {
  readonly parts: string[];
  end: number;
}

const mm = (sheet: Sheet, length: number) => length * sheet.unitsPerMm;
const runningHeight = (sheet: Sheet) => mm(sheet, 8);
const footHeight = (sheet: Sheet) => mm(sheet, 9);
const titleHeight = (sheet: Sheet) => mm(sheet, 16);
const moved = (svg: string, x: number, y: number) =>
  `<g transform="translate(${x.toFixed(1)}, ${y.toFixed(1)})">${svg}</g>`;

function musicPages(
  blocks: readonly SystemBlock[],
  source: CopySource,
  sheet: Sheet,
  lettering: Lettering,
): readonly Body[] {
  const tops = (page: number) => sheet.top + (page === 0 ? titleHeight(sheet) : runningHeight(sheet));
  const room = (page: number) => sheet.bottom - footHeight(sheet) - tops(page);
  const rests = blocks.map((block, k) => ({
    height: block.height,
    restsAtEnd: isRestAround(source, block.lastBar, blocks[k + 1]?.firstBar ?? null),
  }));
  const firsts = breakPages(rests, { first: room(0), other: room(1), gap: GAP * SPACE });
  return firsts.map((from, page): Body => {
    const own = blocks.slice(from, firsts[page + 1] ?? blocks.length);
    const height = own.reduce((sum, block) => sum + block.height, 0);
    const isLast = page === firsts.length - 1;
    const spare = room(page) - height - (own.length - 1) * GAP * SPACE;
    const added = isLast
      ? Math.min(3 * SPACE, spare / own.length)
      : Math.min(MOST_ADDED * SPACE, spare / Math.max(1, own.length - 1));
    const gap = GAP * SPACE + Math.max(0, added);
    const parts: string[] = page === 0 ? [titleSvg(source, sheet, lettering)] : [];
    let y = tops(page);
    for (const block of own) {
      parts.push(moved(block.svg, sheet.left, y));
      y += block.height + gap;
    }
    return { parts, end: y - gap };
  });
}

function titleSvg({ title, subtitle }: CopySource, sheet: Sheet, lettering: Lettering): string {
  const middle = (sheet.left + sheet.right) / 2;
  return (
    textSvg(lettering, { x: middle, y: sheet.top + mm(sheet, 6) }, title, {
      size: mm(sheet, WORDS_MM.title),
      face: 'bold',
      anchor: 'middle',
    }) +
    textSvg(lettering, { x: middle, y: sheet.top + mm(sheet, 11.5) }, subtitle, {
      size: mm(sheet, WORDS_MM.subtitle),
      face: 'italic',
      anchor: 'middle',
    })
  );
}

/** Running title, imprint and number of a page. */
function furniture(
  source: CopySource,
  sheet: Sheet,
  lettering: Lettering,
  page: number,
  pages: number,
): string {
  const size = mm(sheet, WORDS_MM.small);
  const foot = sheet.bottom;
  const running =
    page === 0
      ? ''
      : textSvg(lettering, { x: sheet.left, y: sheet.top + mm(sheet, 2) }, source.title, {
          size,
          face: 'italic',
        });
  const number = textSvg(lettering, { x: sheet.right, y: foot }, `${page + 1} of ${pages}`, {
    size,
    anchor: 'end',
  });
  return running + textSvg(lettering, { x: sheet.left, y: foot }, source.imprint, { size }) + number;
}

/** What follows the music: how high it is, and whether it may share the last page with it. */
interface After {
  readonly svg: string;
  readonly height: number;
  readonly gap: number;
  readonly mayFollow: boolean;
}

function afterMusic(source: CopySource, setting: Setting, sheet: Sheet): readonly After[] {
  const { options, density, lettering } = setting;
  const wants = (what: CopyOptions['include'][number]) => options.include.includes(what);
  const lists = [
    ...(wants('remarks') ? [remarksList(source)] : []),
    ...(wants('legend') ? [legendList(source, density, options)] : []),
  ].filter((list) => list.lines.length > 0);
  const sheets = [
    ...(wants('hotSpots') ? hotSpotSheet(source, sheet, lettering) : []),
    ...(wants('grips') ? chordSheet(source, sheet, lettering) : []),
  ];
  return [
    ...lists.map((list) => listSvg(list, sheet, lettering)),
    ...sheets.map((svg): After => ({ svg, height: 0, gap: 0, mayFollow: false })),
  ];
}

interface TextList {
  readonly heading: string;
  readonly lines: readonly { readonly sign: string; readonly words: string }[];
}

const remarksList = ({ remarks, score }: CopySource): TextList => ({
  heading: 'Remarks',
  lines: score.measures.flatMap(({ uid, number }) => {
    const words = remarks.get(uid);
    return words === undefined ? [] : [{ sign: `Bar ${number}`, words }];
  }),
});

function legendList({ marks }: CopySource, density: Density, { looks }: CopyOptions): TextList {
  const { rows, reading } = legendOf(marks, density, looks);
  return {
    heading: 'Signs',
    lines: [
      ...rows.map(({ sign, meaning }) => ({ sign, words: meaning })),
      ...(reading ? [{ sign: 'no sign', words: reading }] : []),
    ],
  };
}

const SIGN_COLUMN_MM = 20;

function listSvg({ heading, lines }: TextList, sheet: Sheet, lettering: Lettering): After {
  const size = mm(sheet, WORDS_MM.small);
  const line = 1.35 * size;
  const column = mm(sheet, SIGN_COLUMN_MM);
  const width = sheet.right - sheet.left - column;
  const parts = [textSvg(lettering, { x: 0, y: size }, heading, { size: 1.15 * size, face: 'bold' })];
  let y = size + 1.3 * line;
  for (const { sign, words } of lines) {
    parts.push(textSvg(lettering, { x: 0, y }, sign, { size, face: 'italic' }));
    for (const part of wrapped(words, size, width)) {
      parts.push(textSvg(lettering, { x: column, y }, part, { size }));
      y += line;
    }
  }
  return { svg: parts.join(''), height: y, gap: mm(sheet, 6), mayFollow: true };
}

/** Whether a hand has time to turn the leaf after one bar, or before the next sounds. */
function isRestAround({ score }: CopySource, lastBar: number, nextBar: number | null): boolean {
  const quarter = score.ticksPerQuarter;
  const last = score.measures[lastBar]!;
  const end = last.startTicks + last.durationTicks;
  const sounds = score.notes.filter(({ measureIndex }) => measureIndex === lastBar);
  const isSilentAtEnd = sounds.every(
    ({ onsetTicks, durationTicks }) => onsetTicks + durationTicks <= end - REST_QUARTERS * quarter,
  );
  if (isSilentAtEnd || nextBar === null) return true;
  const start = score.measures[nextBar]!.startTicks;
  return score.notes
    .filter(({ measureIndex }) => measureIndex === nextBar)
    .every(({ onsetTicks }) => onsetTicks >= start + REST_QUARTERS * quarter);
}

function pageOf(sheet: Sheet, glyphs: string, parts: readonly string[]): CopyPage {
  const { widthMm, heightMm, width, height } = sheet;
  const frame = `xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width.toFixed(1)} ${height.toFixed(1)}" width="${widthMm}mm" height="${heightMm}mm"`;
  return {
    widthMm,
    heightMm,
    svg: `<svg ${frame}>${glyphs}<rect width="${width.toFixed(1)}" height="${height.toFixed(1)}" fill="#fff"/>${parts.join('')}</svg>`,
  };
}
