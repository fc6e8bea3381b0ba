/** The hard places of a piece with what the hand does there step by step. Source: handbook 9, "Hot spots, walk-through". */
import { actionText } from '../messages/hand';
import { placeOf } from '../score/places';
import { groupedBy } from '../fingering/problem/groupedBy';
import { BOARD_SCALE, boardSize, boardSvg } from './boardSvg';
import { type Lettering, textSvg, wrapped } from './lettering';
import { gripKey, momentsOf, pictureAt } from './moments';
import type { Sheet } from './paper';
import type { CopySource } from './source';

/** So many bars are taken apart, and so many grips of each are shown. */
const SPOTS = 3;
const PICTURES = 3;
const MM = { heading: 4.6, text: 3.5, gap: 7, picture: 59 } as const;

/** Bars by effort, in the order of the music; none that costs nothing. */
export function hottestBars({ plan }: CopySource): readonly number[] {
  return plan.effortByBar
    .map(({ left, right }, bar) => ({ bar, effort: left + right }))
    .filter(({ effort }) => effort > 0)
    .sort((a, b) => b.effort - a.effort || a.bar - b.bar)
    .slice(0, SPOTS)
    .map(({ bar }) => bar)
    .sort((a, b) => a - b);
}

/** @returns drawings of whole pages */
export function hotSpotSheet(source: CopySource, sheet: Sheet, lettering: Lettering): readonly string[] {
  const spots = hottestBars(source).map((bar) => spotSvg(source, bar, sheet, lettering));
  if (spots.length === 0) return [];
  const title = headingSvg('Hard places, step by step', sheet, lettering);
  const room = sheet.bottom - sheet.top - 14 * sheet.unitsPerMm;
  const pages: string[][] = [[title.svg]];
  let y = title.height;
  for (const { svg, height } of spots) {
    if (y + height > room && pages.at(-1)!.length > 1) {
      pages.push([]);
      y = 0;
    }
    pages.at(-1)!.push(`<g transform="translate(0, ${y.toFixed(1)})">${svg}</g>`);
    y += height + MM.gap * sheet.unitsPerMm;
  }
  return pages.map((parts) => parts.join(''));
}

export function headingSvg(words: string, sheet: Sheet, lettering: Lettering) {
  const size = MM.heading * sheet.unitsPerMm;
  return { svg: textSvg(lettering, { x: 0, y: size }, words, { size, face: 'bold' }), height: 2.2 * size };
}

function spotSvg(source: CopySource, bar: number, sheet: Sheet, lettering: Lettering) {
  const { score, script } = source;
  const measure = score.measures[bar]!;
  const end = measure.startTicks + measure.durationTicks;
  const size = MM.text * sheet.unitsPerMm;
  const line = 1.35 * size;
  const width = sheet.right - sheet.left;
  const parts = [
    textSvg(lettering, { x: 0, y: size }, `Bar ${measure.number}`, { size: 1.15 * size, face: 'bold' }),
  ];
  let y = size + 0.6 * line;
  const pictures = gripsOfBar(source, bar);
  const step = MM.picture * sheet.unitsPerMm;
  let highest = 0;
  pictures.forEach(({ picture, place }, k) => {
    const scale = BOARD_SCALE * sheet.unitsPerMm;
    const own = boardSize(picture);
    highest = Math.max(highest, own.height * scale);
    parts.push(
      `<g transform="translate(${(k * step).toFixed(1)}, ${y.toFixed(1)})">${boardSvg(picture, scale, lettering)}</g>`,
      textSvg(
        lettering,
        { x: k * step + 0.5 * own.width * scale, y: y + own.height * scale + 0.7 * size },
        `beat ${beatText(place)}`,
        {
          size: 0.9 * size,
          face: 'italic',
          anchor: 'middle',
        },
      ),
    );
  });
  y += highest + 2.4 * size;
  const actions = script.filter(({ ticks }) => ticks >= measure.startTicks && ticks < end);
  for (const [ticks, own] of groupedBy(actions, (action) => action.ticks)) {
    const words = own.map((action) => actionText(action, (at) => placeOf(score, at))).join('; ');
    parts.push(
      textSvg(lettering, { x: 0, y }, `beat ${beatText(placeOf(score, ticks).beat)}`, {
        size,
        face: 'italic',
      }),
    );
    for (const part of wrapped(words, size, width - 5 * size)) {
      parts.push(textSvg(lettering, { x: 5 * size, y }, part, { size }));
      y += line;
    }
  }
  return { svg: parts.join(''), height: y };
}

/** "1½" for "1.5". */
const beatText = (beat: string): string =>
  beat.replace(/\.5$/, '½').replace(/\.25$/, '¼').replace(/\.75$/, '¾');

/** The first few grips that differ from the one before. */
function gripsOfBar(source: CopySource, bar: number) {
  const moments = momentsOf(source);
  const own = moments.flatMap((moment, at) => (moment.bar === bar ? [{ moment, at }] : []));
  return own
    .filter(({ moment }, k) => k === 0 || gripKey(source, moment) !== gripKey(source, own[k - 1]!.moment))
    .map(({ moment, at }) => ({
      picture: pictureAt(source, moments, at),
      place: placeOf(source.score, moment.ticks).beat,
    }))
    .filter(({ picture }) => picture.tips.some(({ finger }) => finger > 0))
    .slice(0, PICTURES);
}
