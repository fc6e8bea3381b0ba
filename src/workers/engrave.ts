/** Verovio, set up for the desk: one long page whose systems never reflow. */
import createVerovioModule from 'verovio/wasm';
import { VerovioToolkit } from 'verovio/esm';
import { joinPages } from '../core/engraving/joinPages';
import { readEngravedPage } from '../core/engraving/readPage';
import type { EngravedPage } from '../core/engraving/page';
import { DESK_WIDTH } from '../core/engraving/widths';
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
const FIRST_BARS = 24;
/** Longer pieces show these first. */
const LONG_BARS = 48;

/**
 * The first systems alone; null for a piece that has no more. The whole breaks its systems in the same places, but for
 * the last of these.
 * @throws Error when the engraver cannot read what the importer could: a bug
 */
export async function maybeEngraveBeginning(
  text: string,
  document: ScoreDocument,
  corrections: Corrections = NO_CORRECTIONS,
  pageWidth = DESK_WIDTH,
): Promise<EngravedPage | null> {
  if (document.score.measures.length <= LONG_BARS) return null;
  const beginning = maybeBeginning(document, corrections, FIRST_BARS);
  return beginning && draw(text, beginning, pageWidth);
}

async function draw(
  text: string,
  { splices, placeKeepers }: EngravingText,
  pageWidth: number,
): Promise<EngravedPage> {
  const engraver = await loadEngraver();
  engraver.setOptions({ ...OPTIONS, pageWidth });
  if (!engraver.loadData(applySplices(text, splices))) throw new Error(`engraver: ${engraver.getLog()}`);
  const keepers = new Set(placeKeepers);
  const sheets = Array.from({ length: engraver.getPageCount() }, (_, k) => engraver.renderToSVG(k + 1));
  return joinPages(sheets.map((sheet) => readEngravedPage(sheet, keepers)));
}
