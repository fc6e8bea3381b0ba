/**
 * One mark as drawing, for the screen and for paper. What is proposed, decided and printed differ in form, so that they
 * are told apart in grey and at arm's length: pencil is thin and slanted, in a dashed circle; ink is bold and upright, in
 * a thick circle; what came with the file stands in square brackets, its string in two circles. What contradicts has a
 * zigzag under it.
 */
import type { MarkKind, MarkState } from '../marks/mark';
import type { PlacedMark } from './placeMarks';
import { DEPARTING } from './sizes';

/** What the drawing is made with: colours and lettering of a screen or of paper. */
export interface Drawing {
  /** Between two staff lines, and how large the edition wants its marks. */
  readonly space: number;
  readonly scale: number;
  readonly colours: Readonly<Record<'pencil' | 'ink' | 'conflict' | 'paper', string>>;
  /** Attributes of a text; `slanted` is italic. */
  readonly lettering: (state: MarkState, slanted: boolean) => string;
  /** Staff lines give way to a numeral by its outline on screen, by a field on paper, where text has none. */
  readonly clearing: 'outline' | 'field';
}

const SIZES: Readonly<Record<MarkKind, number>> = {
  finger: 1.86,
  unplanned: 1.86,
  pluck: 1.55,
  string: 1.12,
  barre: 1.3,
  position: 1.3,
  touch: 1.3,
  damp: 1,
  expression: 1.45,
  remark: 1.35,
  guide: 1,
};
const LINES: Readonly<Record<MarkState, number>> = { pencil: 0.09, ink: 0.19, printed: 0.1 };
/** These stand on the line that says how long they hold. */
const WORDS: readonly MarkKind[] = ['barre', 'position', 'touch'];
/** Drawn, with no text. */
const UNWRITTEN: readonly MarkKind[] = ['guide', 'damp'];
const NUMERALS: readonly MarkKind[] = ['finger', 'unplanned'];

export function markSvg(mark: PlacedMark, drawing: Drawing, conflict = false): string {
  const pen = penOf(mark, drawing, conflict);
  const parts = [
    mark.kind === 'guide' ? guide(mark, pen) : '',
    mark.kind === 'string' ? circles(mark, pen) : '',
    mark.lineTo === null ? '' : goesOn(mark, mark.lineTo, pen),
    mark.kind === 'damp' ? damp(mark, pen) : '',
    isStroke(mark) ? stroke(mark, pen) : UNWRITTEN.includes(mark.kind) ? '' : text(mark, pen),
    mark.state === 'printed' && mark.kind !== 'string' ? brackets(mark, pen) : '',
    mark.departs === null ? '' : departing(mark, mark.departs, pen),
    conflict ? zigzag(mark, pen) : '',
  ];
  const data = `data-mark="${mark.kind}" data-uid="${mark.uid}" data-state="${mark.state}"${conflict ? ' data-conflict="yes"' : ''}`;
  return `<g ${data} ${drawing.lettering(mark.state, isSlanted(mark))} font-size="${n(pen.size)}" fill="${pen.fill}">${parts.join('')}</g>`;
}

/** What every part of one mark is drawn with; lengths in the page's units. */
interface Pen {
  readonly unit: number;
  readonly size: number;
  readonly fill: string;
  /** The middle of what is written, left of a sign that stands behind it. */
  readonly x: number;
  readonly y: number;
  readonly signed: number;
  readonly drawing: Drawing;
}

function penOf(mark: PlacedMark, drawing: Drawing, conflict: boolean): Pen {
  const { colours, scale, space } = drawing;
  const unit = scale * space;
  const signed = mark.departs === null ? 0 : DEPARTING * unit;
  const { box } = mark;
  const own = mark.state === 'pencil' ? colours.pencil : colours.ink;
  return {
    unit,
    size: SIZES[mark.kind] * unit,
    fill: conflict || mark.kind === 'unplanned' ? colours.conflict : own,
    x: box.x + (box.width - signed) / 2,
    y: box.y + box.height / 2,
    signed,
    drawing,
  };
}

const isStroke = ({ kind, text }: PlacedMark) => kind === 'pluck' && (text === 'down' || text === 'up');

/** Letters of the right hand are italic whoever wrote them. */
const isSlanted = ({ kind, state }: PlacedMark) =>
  kind === 'pluck' ||
  kind === 'touch' ||
  kind === 'expression' ||
  kind === 'remark' ||
  (kind === 'finger' && state === 'pencil');

function guide({ line, box }: PlacedMark, { fill, unit, y }: Pen): string {
  const at = line ?? { x1: box.x, y1: y, x2: box.x + box.width, y2: y };
  const width = (line ? 0.1 : 0.14) * unit;
  return `<line x1="${n(at.x1)}" y1="${n(at.y1)}" x2="${n(at.x2)}" y2="${n(at.y2)}" stroke="${fill}" stroke-width="${n(width)}"/>`;
}

function circles({ state }: PlacedMark, { x, y, unit, fill, drawing }: Pen): string {
  const dashes = state === 'pencil' ? ` stroke-dasharray="${n(0.34 * unit)} ${n(0.17 * unit)}"` : '';
  const outer = `<circle cx="${n(x)}" cy="${n(y)}" r="${n(0.6 * unit)}" fill="${drawing.colours.paper}" stroke="${fill}" stroke-width="${n(LINES[state] * unit)}"${dashes}/>`;
  if (state !== 'printed') return outer;
  return `${outer}<circle cx="${n(x)}" cy="${n(y)}" r="${n(0.44 * unit)}" fill="none" stroke="${fill}" stroke-width="${n(0.05 * unit)}"/>`;
}

function goesOn({ kind, box, below }: PlacedMark, lineTo: number, { unit, y, fill }: Pen): string {
  const at = WORDS.includes(kind) ? y - 0.1 * unit : y;
  const dashes = kind === 'position' ? '' : ` stroke-dasharray="${n(0.45 * unit)} ${n(0.35 * unit)}"`;
  const path = `M${n(box.x + box.width + 0.15 * unit)} ${n(at)} H${n(lineTo)} v${n((below ? -0.5 : 0.5) * unit)}`;
  return `<path d="${path}" fill="none" stroke="${fill}" stroke-width="${n(0.09 * unit)}"${dashes}/>`;
}

function stroke({ text, state }: PlacedMark, { x, y, unit, fill }: Pen): string {
  const path =
    text === 'down'
      ? `M${n(x - 0.42 * unit)} ${n(y + 0.5 * unit)} v${n(-0.95 * unit)} h${n(0.84 * unit)} v${n(0.95 * unit)}`
      : `M${n(x - 0.36 * unit)} ${n(y - 0.5 * unit)} l${n(0.36 * unit)} ${n(1.05 * unit)} l${n(0.36 * unit)} ${n(-1.05 * unit)}`;
  const width = (state === 'ink' ? 0.24 : 0.13) * unit;
  return `<path d="${path}" fill="none" stroke="${fill}" stroke-width="${n(width)}"/>`;
}

/** Names in the Standard Music Font Layout: a ring with a cross through it, in a second ring where all strings are meant. */
export const DAMP_GLYPHS = { string: 'pluckedDamp', all: 'pluckedDampAll' } as const;

function damp({ text }: PlacedMark, { x, y, unit, fill }: Pen): string {
  const ring = (radius: number) =>
    `<circle cx="${n(x)}" cy="${n(y)}" r="${n(radius * unit)}" fill="none" stroke="${fill}" stroke-width="${n(0.13 * unit)}"/>`;
  const cross = `M${n(x - 0.64 * unit)} ${n(y)} h${n(1.28 * unit)} M${n(x)} ${n(y - 0.64 * unit)} v${n(1.28 * unit)}`;
  const name = text === 'all' ? DAMP_GLYPHS.all : DAMP_GLYPHS.string;
  return `<g data-smufl="${name}">${ring(0.4)}${text === 'all' ? ring(0.22) : ''}<path d="${cross}" fill="none" stroke="${fill}" stroke-width="${n(0.13 * unit)}"/></g>`;
}

/** From the middle of a box to the line of its text; words have heads and tails. In parts of their size. */
const DROPS: Readonly<Partial<Record<MarkKind, number>>> = { pluck: 0.24, expression: 0.255, remark: 0.255 };

/** Digits and small letters sit a little above the middle of their line. */
function text({ kind, text }: PlacedMark, { x, y, size, unit, drawing }: Pen): string {
  const drop = (DROPS[kind] ?? 0.325) * size;
  const isCleared = NUMERALS.includes(kind);
  const { paper } = drawing.colours;
  const field =
    isCleared && drawing.clearing === 'field'
      ? `<ellipse cx="${n(x)}" cy="${n(y)}" rx="${n(0.42 * unit)}" ry="${n(0.66 * unit)}" fill="${paper}"/>`
      : '';
  const outline =
    isCleared && drawing.clearing === 'outline'
      ? ` stroke="${paper}" stroke-width="${n(0.28 * unit)}" paint-order="stroke" stroke-linejoin="round"`
      : '';
  return `${field}<text x="${n(x)}" y="${n(y + drop)}" text-anchor="middle"${outline}>${escaped(text)}</text>`;
}

function brackets({ box }: PlacedMark, { unit, fill }: Pen): string {
  const bracket = (at: number, inwards: number) =>
    `M${n(at + inwards)} ${n(box.y - 0.05 * unit)} H${n(at)} V${n(box.y + box.height + 0.05 * unit)} H${n(at + inwards)}`;
  const path = `${bracket(box.x, 0.22 * unit)} ${bracket(box.x + box.width, -0.22 * unit)}`;
  return `<path data-form="brackets" d="${path}" fill="none" stroke="${fill}" stroke-width="${n(0.1 * unit)}"/>`;
}

function departing({ box }: PlacedMark, departs: string, { unit, signed, drawing }: Pen): string {
  const left = box.x + box.width - signed;
  const path = `M${n(left)} ${n(box.y + 0.16 * unit)} h${n(0.42 * unit)} m${n(-0.42 * unit)} ${n(0.2 * unit)} h${n(0.42 * unit)} m${n(-0.33 * unit)} ${n(0.14 * unit)} l${n(0.24 * unit)} ${n(-0.48 * unit)}`;
  return `<path data-departs="${escaped(departs)}" d="${path}" fill="none" stroke="${drawing.colours.ink}" stroke-width="${n(0.08 * unit)}"/>`;
}

function zigzag({ box }: PlacedMark, { unit, fill }: Pen): string {
  const teeth = Array.from(
    { length: 4 },
    (_, k) => `l${n(box.width / 4)} ${n((k % 2 === 0 ? -1 : 1) * 0.22 * unit)}`,
  );
  return `<path data-form="zigzag" d="M${n(box.x)} ${n(box.y + box.height)} ${teeth.join(' ')}" fill="none" stroke="${fill}" stroke-width="${n(0.12 * unit)}"/>`;
}

/** A hundredth of a unit is less than a thousandth of a staff space. */
const n = (length: number): string => String(Math.round(100 * length) / 100);

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
