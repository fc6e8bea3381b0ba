/** Verovio, set up for the desk: one long page whose systems never reflow. */
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';
import { joinPages } from '../core/engraving/joinPages';
import { readEngravedPage } from '../core/engraving/readPage';
import type { EngravedPage } from '../core/engraving/page';
import { DESK_WIDTH } from '../core/engraving/widths';
import { breakLines, type NaturalBar } from '../core/copy/breakLines';
import { type EngravingText, engravingSplices, maybeBeginning } from '../core/formats/musicxml/engravingText';
import { type Corrections, NO_CORRECTIONS } from '../core/score/corrections';
import type { ScoreDocument } from '../core/formats/musicxml/readScore';
import { applySplices } from '../core/formats/musicxml/splice';

/** Room between the systems is for marks at full density. */
const OPTIONS = {
  pageHeight: 60000,
  adjustPageHeight: true,
  breaks: 'auto',
  scale: 100,
  unit: 9,
  header: 'none',
  footer: 'none',
  svgBoundingBoxes: true,
  svgViewBox: true,
  spacingSystem: 14,
  spacingNonLinear: 0.56,
  spacingLinear: 0.3,
  staffLineWidth: 0.22,
  pageMarginLeft: 40,
  pageMarginRight: 40,
  pageMarginTop: 110,
  pageMarginBottom: 110,
  xmlIdSeed: 7,
} as const;

let toolkit: Promise<VerovioToolkit> | null = null;

export const loadEngraver = (): Promise<VerovioToolkit> =>
  (toolkit ??= createVerovioModule().then((module) => new VerovioToolkit(module)));

/** @throws Error when the engraver cannot read what the importer could: a bug */
export async function engrave(
  text: string,
  document: ScoreDocument,
  corrections: Corrections = NO_CORRECTIONS,
  pageWidth = DESK_WIDTH,
): Promise<EngravedPage> {
  return draw(text, engravingSplices(document, corrections), pageWidth);
}

/** Bars whose engraving nobody notices waiting for: they fill a screen and more. */
export const FIRST_BARS = 24;

/**
 * The first systems alone; null for a piece that has no more. The whole breaks its systems in the same places, but for
 * the last of these.
 * @param firstBars that are shown first of a piece of more than twice as many
 * @throws Error when the engraver cannot read what the importer could: a bug
 */
export async function maybeEngraveBeginning(
  text: string,
  document: ScoreDocument,
  corrections: Corrections = NO_CORRECTIONS,
  pageWidth = DESK_WIDTH,
  firstBars = FIRST_BARS,
): Promise<EngravedPage | null> {
  if (document.score.measures.length <= 2 * firstBars) return null;
  const beginning = maybeBeginning(document, corrections, firstBars);
  return beginning && draw(text, beginning, pageWidth);
}

/** In the engraver's units: as wide as it can be. */
const ENDLESS = 100_000;

export interface PaperOptions {
  readonly pageWidth: number;
  readonly endsOf: (bar: number) => NaturalBar['ends'];
  /** Bars that systems of their own are made of. */
  readonly only: { readonly from: number; readonly to: number } | null;
}

/** A system of its own for each paper: bars as wide as they want to be first, then systems where they are told to end. */
export async function engraveForPaper(
  text: string,
  document: ScoreDocument,
  corrections: Corrections,
  { pageWidth, endsOf, only }: PaperOptions,
): Promise<EngravedPage> {
  const endless = await draw(text, engravingSplices(document, corrections), ENDLESS, 'none');
  const room = { width: (pageWidth * 10) / endless.staffSpace, head: headOf(endless) };
  const bars = naturalBars(endless, endsOf);
  const linesFrom = (from: number, end: number) =>
    breakLines(bars.slice(from, end), room).map((first) => first + from);
  const ends = only ? [0, only.from, only.to + 1, bars.length] : [0, bars.length];
  const firsts = ends.slice(1).flatMap((end, k) => linesFrom(ends[k]!, end));
  const splices = engravingSplices(document, corrections, new Set(firsts));
  return draw(text, splices, pageWidth, 'encoded');
}

/** In staff spaces. */
function naturalBars(
  { bars, staffSpace }: EngravedPage,
  endsOf: (bar: number) => NaturalBar['ends'],
): readonly NaturalBar[] {
  return bars.map(({ left, right }, k) => ({ width: (right - left) / staffSpace, ends: endsOf(k) }));
}

/** Clef and key of a system: about what the first bar has before its first note, without the metre. In staff spaces. */
function headOf({ bars, notes, staffSpace }: EngravedPage): number {
  const first = Math.min(...notes.map(({ x }) => x));
  const METRE = 3;
  return Math.max(3, (first - bars[0]!.left) / staffSpace - METRE);
}

async function draw(
  text: string,
  { splices, placeKeepers }: EngravingText,
  pageWidth: number,
  breaks: 'auto' | 'none' | 'encoded' = 'auto',
): Promise<EngravedPage> {
  const engraver = await loadEngraver();
  const margins = breaks === 'auto' ? {} : { pageMarginLeft: 0, pageMarginRight: 0 };
  engraver.setOptions({ ...OPTIONS, ...margins, pageWidth, breaks });
  if (!engraver.loadData(applySplices(text, splices))) throw new Error(`engraver: ${engraver.getLog()}`);
  const keepers = new Set(placeKeepers);
  const sheets = Array.from({ length: engraver.getPageCount() }, (_, k) => engraver.renderToSVG(k + 1));
  return joinPages(sheets.map((sheet) => readEngravedPage(sheet, keepers)));
}
