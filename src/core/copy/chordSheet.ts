/** The chords and grips of a piece: every one once, with the bars that have it. */
import { boardPicture, type Grip } from '../engraving/fretboardPicture';
import { withCapo } from '../instrument/fretboard';
import { surveyOf } from '../survey/survey';
import { BOARD_SCALE, boardSvg } from './boardSvg';
import { headingSvg } from './hotSpotSheet';
import { type Lettering, textSvg, withSigns } from './lettering';
import { type MomentNotes, momentsOf } from './moments';
import type { Sheet } from './paper';
import type { CopySource } from './source';

/** Fewer fingers are no grip that one would look up. */
const LEAST_FINGERS = 2;
const COLUMNS = 3;
const MM = { text: 3.4, row: 38 } as const;
const MOST_BARS_NAMED = 4;

export interface GripOfPiece {
  readonly grip: Grip;
  readonly chord: string | null;
  readonly bars: readonly number[];
}

/** A broken chord is one grip: of those of a bar only what is no part of another, with the open strings played in it. */
export function gripsOfPiece(source: CopySource): readonly GripOfPiece[] {
  const { bars } = surveyOf(source.score, source.corrections, source.plan);
  const grips = new Map<string, { grip: Grip; chord: string | null; bars: Set<number> }>();
  const moments = momentsOf(source);
  source.score.measures.forEach((_, bar) => {
    const own = moments.filter((moment) => moment.bar === bar);
    for (const grip of wholeGrips(source, own)) {
      const key = [...grip.stays.map(stayKey), ...openStrings(grip)].sort().join();
      const known = grips.get(key);
      if (known) known.bars.add(bar);
      else grips.set(key, { grip, chord: bars[bar]!.chord, bars: new Set([bar]) });
    }
  });
  return [...grips.values()].map(({ grip, chord, bars }) => ({ grip, chord, bars: [...bars] }));
}

const stayKey = ({ finger, string, fret }: Grip['stays'][number]) => `${finger} ${string} ${fret}`;
const openStrings = ({ notes }: Grip) => [
  ...new Set(notes.filter(({ fret }) => fret === 0).map(({ string }) => `0 ${string}`)),
];

function wholeGrips({ plan }: CopySource, moments: readonly MomentNotes[]): readonly Grip[] {
  const held = moments.map(({ ticks, notes }): Grip & { readonly keys: ReadonlySet<string> } => {
    const stays = plan.fingers.filter(({ fromTicks, toTicks }) => fromTicks <= ticks && toTicks > ticks);
    return { ticks, notes, stays, keys: new Set(stays.map(stayKey)) };
  });
  const isPart = (a: ReadonlySet<string>, b: ReadonlySet<string>) => [...a].every((key) => b.has(key));
  return held
    .filter(
      ({ keys }, k) =>
        keys.size >= LEAST_FINGERS &&
        !held.some((other, n) => isPart(keys, other.keys) && (other.keys.size > keys.size || n < k)),
    )
    .map(({ ticks, stays, keys }) => ({
      ticks,
      stays,
      notes: held.filter((other) => isPart(other.keys, keys)).flatMap(({ notes }) => notes),
    }));
}

/** @returns drawings of whole pages */
export function chordSheet(source: CopySource, sheet: Sheet, lettering: Lettering): readonly string[] {
  const title = headingSvg('Chords and grips', sheet, lettering);
  const width = (sheet.right - sheet.left) / COLUMNS;
  const row = MM.row * sheet.unitsPerMm;
  const rows = Math.floor((sheet.bottom - sheet.top - 14 * sheet.unitsPerMm - title.height) / row);
  const perPage = Math.max(1, rows) * COLUMNS;
  const cells = gripsOfPiece(source).map((grip, k) => {
    const place = k % perPage;
    const [x, y] = [(place % COLUMNS) * width, title.height + Math.floor(place / COLUMNS) * row];
    return `<g transform="translate(${x.toFixed(1)}, ${y.toFixed(1)})">${cellSvg(grip, source, sheet, lettering)}</g>`;
  });
  const pages: string[] = [];
  for (let from = 0; from < cells.length; from += perPage)
    pages.push((from === 0 ? title.svg : '') + cells.slice(from, from + perPage).join(''));
  return pages;
}

function cellSvg(
  { grip, chord, bars }: GripOfPiece,
  { score, board }: CopySource,
  sheet: Sheet,
  lettering: Lettering,
): string {
  const size = MM.text * sheet.unitsPerMm;
  const picture = boardPicture(withCapo(board, score.capo), grip, null, false);
  const numbers = bars.map((bar) => score.measures[bar]!.number);
  const more = numbers.length > MOST_BARS_NAMED ? ' …' : '';
  const where = `bar${numbers.length > 1 ? 's' : ''} ${numbers.slice(0, MOST_BARS_NAMED).join(', ')}${more}`;
  const left = 3 * sheet.unitsPerMm;
  return (
    textSvg(lettering, { x: left, y: size }, withSigns(chord ?? ''), { size: 1.2 * size, face: 'bold' }) +
    textSvg(lettering, { x: left + 18 * sheet.unitsPerMm, y: size }, where, { size, face: 'italic' }) +
    `<g transform="translate(0, ${(1.5 * size).toFixed(1)})">${boardSvg(picture, BOARD_SCALE * sheet.unitsPerMm, lettering)}</g>`
  );
}
