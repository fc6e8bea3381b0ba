/** One system as it stands on paper: its engraving, its marks, and the rows that were asked for over and under them. */
import type { EngravedPage } from '../engraving/page';
import { type Drawing, markSvg } from '../engraving/markSvg';
import { sheetOf, type SheetSystem } from '../engraving/sheet';
import type { Includable } from './paper';
import { chordRow, countingRow, formRow, type RowText } from './rowTexts';
import { type Lettering, textSvg, withMusic } from './lettering';
import type { CopySource } from './source';
import { tablatureSvg, tablatureHeight } from './tablature';

/** Lengths in the engraver's units, from the left edge of the music and from the block's own top. */
export interface SystemBlock {
  readonly svg: string;
  readonly height: number;
  readonly firstBar: number;
  readonly lastBar: number;
}

export interface BlockOptions {
  readonly include: readonly Includable[];
  /** Indices of the bars that are counted under their notes. */
  readonly counted: ReadonlySet<number>;
  readonly changed: ReadonlySet<string>;
  readonly drawing: Omit<Drawing, 'space' | 'scale'>;
  readonly lettering: Lettering;
}

export function systemBlocks(
  page: EngravedPage,
  source: CopySource,
  options: BlockOptions,
): readonly SystemBlock[] {
  const { systems } = sheetOf(page, source.marks, { scale: source.markScale });
  return systems.map((system) => blockOf(page, system, source, options));
}

/** Sizes and gaps in staff spaces. */
const ROW = { size: 2, gap: 0.7 } as const;
const TABLATURE_GAP = 1.2;

function blockOf(
  page: EngravedPage,
  { layout, index }: SheetSystem,
  source: CopySource,
  options: BlockOptions,
): SystemBlock {
  const space = page.staffSpace;
  const { drawing, lettering, include } = options;
  const own = { page, index, source };
  const above = [
    ...(include.includes('chords') ? [chordRow(own)] : []),
    ...(include.includes('form') ? [formRow(own)] : []),
  ].filter((row) => row.length > 0);
  const counting = include.includes('counting') ? countingRow(own, options.counted) : [];
  const hasTablature = include.includes('tablature');

  const rowHeight = (ROW.size + ROW.gap) * space;
  const top = layout.top - above.length * rowHeight;
  const tablatureTop = layout.bottom + TABLATURE_GAP * space;
  const underTablature = hasTablature ? tablatureTop + tablatureHeight(space) : layout.bottom;
  const bottom = underTablature + (counting.length > 0 ? rowHeight : 0);
  const bars = page.bars.flatMap(({ system }, k) => (system === index ? [k] : []));
  const pen = { ...drawing, space, scale: source.markScale };
  const parts = [
    changedSvg(page, index, options.changed),
    onPaper(layout.drawing.svg, lettering),
    ...layout.drawing.tempos.map(({ svg }) => onPaper(svg, lettering)),
    ...layout.placed.map((mark) => markSvg(mark, pen)),
    ...above.map((row, k) => rowSvg(row, layout.top - k * rowHeight - ROW.gap * space, space, lettering)),
    hasTablature ? tablatureSvg(page, index, source.plan, { top: tablatureTop, lettering }) : '',
    counting.length > 0 ? rowSvg(counting, bottom - 0.2 * space, space, lettering) : '',
  ];
  return {
    svg: `<g transform="translate(0, ${(-top).toFixed(1)})">${parts.join('')}</g>`,
    height: bottom - top,
    firstBar: bars[0] ?? 0,
    lastBar: bars.at(-1) ?? 0,
  };
}

/** A dashed frame with a grey field, which a copier keeps, around each note whose marks have changed. */
function changedSvg(page: EngravedPage, index: number, changed: ReadonlySet<string>): string {
  const space = page.staffSpace;
  return page.notes
    .filter(({ uid, system }) => system === index && changed.has(uid))
    .map(
      ({ uid, x, y, width, height }) =>
        `<rect data-changed="${uid}" x="${(x - 1.6 * space).toFixed(1)}" y="${(y - 0.5 * space).toFixed(1)}" width="${(width + 2.1 * space).toFixed(1)}" height="${(height + space).toFixed(1)}" rx="${(0.4 * space).toFixed(1)}" fill="#e8e4dc" stroke="#000" stroke-width="${(0.1 * space).toFixed(1)}" stroke-dasharray="${(0.4 * space).toFixed(1)} ${(0.25 * space).toFixed(1)}"/>`,
    )
    .join('');
}

const rowSvg = (row: readonly RowText[], y: number, space: number, lettering: Lettering): string =>
  row
    .map(({ x, text, face, anchor }) =>
      textSvg(lettering, { x, y }, text, { size: ROW.size * space, face, anchor }),
    )
    .join('');

/** The engraver leaves it to a style sheet to draw lines and to set words: a file of its own has none. */
const onPaper = (svg: string, lettering: Lettering): string =>
  withMusic(
    svg
      .replace(/<(path|polygon|polyline) /g, '<$1 stroke="#000" ')
      .replace(/<text /g, `<text ${lettering.words('regular')} `),
    lettering,
  );
