/** Some bars as one picture, as wide as a line of the paper that it is made for, and no higher than it needs. */
import type { EngravedPage } from '../engraving/page';
import { type CopyPage, blocksOf, type Setting } from './compose';
import { sheetOfPaper, UNITS_IN_A_SPACE } from './paper';
import type { CopySource } from './source';

const GAP = 1.2 * UNITS_IN_A_SPACE;
const EDGE = 1.2 * UNITS_IN_A_SPACE;

/** @param bars indices of the first and the last; the page has systems that begin and end with them */
export function composePicture(
  engraved: EngravedPage,
  source: CopySource,
  setting: Setting,
  bars: { readonly from: number; readonly to: number },
): CopyPage {
  const { unitsPerMm } = sheetOfPaper(setting.options);
  const blocks = blocksOf(engraved, source, setting).filter(
    ({ firstBar, lastBar }) => firstBar >= bars.from && lastBar <= bars.to,
  );
  const right = Math.max(...engraved.bars.slice(bars.from, bars.to + 1).map((bar) => bar.right));
  const parts: string[] = [];
  let y = EDGE;
  for (const block of blocks) {
    parts.push(`<g transform="translate(${EDGE}, ${y.toFixed(1)})">${block.svg}</g>`);
    y += block.height + GAP;
  }
  const [width, height] = [right + 2 * EDGE, y - GAP + EDGE];
  const [widthMm, heightMm] = [width / unitsPerMm, height / unitsPerMm];
  const frame = `xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width.toFixed(1)} ${height.toFixed(1)}" width="${widthMm.toFixed(2)}mm" height="${heightMm.toFixed(2)}mm"`;
  const paper = `<rect width="${width.toFixed(1)}" height="${height.toFixed(1)}" fill="#fff"/>`;
  return { widthMm, heightMm, svg: `<svg ${frame}>${engraved.glyphs}${paper}${parts.join('')}</svg>` };
}
