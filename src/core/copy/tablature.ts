/** Six lines with frets under a system, for whoever asks for it: a fret stands under its note. */
import type { EngravedPage } from '../engraving/page';
import type { FingeringPlan } from '../fingering/report/plan';
import { STRINGS } from '../instrument/tuning';
import { type Lettering, textSvg } from './lettering';

/** In staff spaces. */
const LINES_APART = 1.4;
const DIGIT = 1.5;
const LINE = 0.08;

export const tablatureHeight = (space: number): number =>
  (STRINGS.length - 1) * LINES_APART * space + DIGIT * space;

export function tablatureSvg(
  page: EngravedPage,
  index: number,
  plan: FingeringPlan,
  { top, lettering }: { readonly top: number; readonly lettering: Lettering },
): string {
  const space = page.staffSpace;
  const { left, right } = page.systems[index]!;
  const yOf = (string: number) => top + ((string - 1) * LINES_APART + DIGIT / 2) * space;
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    `<path d="M${x1.toFixed(1)} ${y1.toFixed(1)} L${x2.toFixed(1)} ${y2.toFixed(1)}" stroke="#000" stroke-width="${(LINE * space).toFixed(1)}" fill="none"/>`;
  const lines = STRINGS.map((string) => line(left, yOf(string), right, yOf(string)));
  const ends = page.bars.filter(({ system }) => system === index).flatMap((bar) => [bar.left, bar.right]);
  const bars = [...new Set(ends)].map((x) => line(x, yOf(1), x, yOf(STRINGS.length)));
  const noteOf = new Map(page.notes.map((note) => [note.uid, note]));
  const frets = plan.notes.flatMap(({ uid, string, fret }) => {
    const note = noteOf.get(uid);
    if (note?.system !== index || string === null || fret === null) return [];
    const x = note.x + note.width / 2;
    const width = 0.5 * String(fret).length * DIGIT * space;
    const field = `<rect x="${(x - width / 2 - 0.1 * space).toFixed(1)}" y="${(yOf(string) - 0.5 * space).toFixed(1)}" width="${(width + 0.2 * space).toFixed(1)}" height="${space.toFixed(1)}" fill="#fff"/>`;
    const digits = textSvg(lettering, { x, y: yOf(string) + 0.34 * DIGIT * space }, String(fret), {
      size: DIGIT * space,
      anchor: 'middle',
    });
    return [`<g data-fret="${fret}" data-string="${string}">${field}${digits}</g>`];
  });
  return `<g data-part="tablature">${lines.join('')}${bars.join('')}${frets.join('')}</g>`;
}
