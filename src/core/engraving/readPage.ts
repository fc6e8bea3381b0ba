/**
 * Reads the engraver's SVG: takes the boxes out of it and lets only drawing through. Elements and attributes
 * that are not on the lists are dropped, so that no markup of a file ever reaches the page.
 */
import { SaxesParser, type SaxesTagPlain } from 'saxes';
import type { BarBox, Box, EngravedPage, NoteBox, SystemBox } from './page';

const ELEMENTS = new Set([
  'g',
  'path',
  'use',
  'polygon',
  'polyline',
  'rect',
  'ellipse',
  'text',
  'tspan',
  'defs',
  'svg',
]);
const ATTRIBUTES = new Set([
  'd',
  'x',
  'y',
  'width',
  'height',
  'transform',
  'points',
  'cx',
  'cy',
  'rx',
  'ry',
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-linejoin',
  'fill-opacity',
  'stroke-opacity',
  'opacity',
  'font-size',
  'font-style',
  'font-weight',
  'text-anchor',
  'viewBox',
  'class',
  'id',
]);
/** Notes inside words (a metronome mark) come in a music font's private code points; text fonts have these. */
export const MUSIC_IN_TEXT: Readonly<Record<string, string>> = {
  '\uECA3': '\u{1D15E}',
  '\uECA5': '\u2669',
  '\uECA7': '\u266A',
  '\uECB7': '.',
  '\uE1D3': '\u{1D15E}',
  '\uE1D5': '\u2669',
  '\uE1D7': '\u266A',
  '\uE1E7': '.',
};

const OBSTACLES = new Set([
  'note',
  'stem',
  'flag',
  'accid',
  'dots',
  'rest',
  'slur',
  'tie',
  'artic',
  'clef',
  'keySig',
  'meterSig',
  'dir',
  'dynam',
  'hairpin',
  'tupletNum',
  'tupletBracket',
  'fermata',
  'trill',
  'ending',
  'mNum',
  'reh',
  'text',
]);

interface Open {
  readonly name: string;
  readonly kind: string;
  readonly dropped: boolean;
  readonly uid: string | null;
}

/** A range of what has been written out, with the box that it fills. */
interface GrowingWords {
  readonly from: number;
  to: number;
  box: Box | null;
}

interface GrowingSystem {
  /** Where its drawing begins and ends in what is written out. */
  readonly from: number;
  to: number;
  readonly tempos: GrowingWords[];
  top: number;
  bottom: number;
  left: number;
  right: number;
  obstacles: Box[];
}

/**
 * @param svg one page as the engraver writes it, with bounding boxes
 * @param placeKeepers uids whose accidental is not drawn but keeps a place free
 * @throws Error when the SVG is not well-formed
 */
export function readEngravedPage(svg: string, placeKeepers: ReadonlySet<string>): EngravedPage {
  return new PageReader(placeKeepers).read(svg);
}

class PageReader {
  private readonly out: string[] = [];
  private readonly open: Open[] = [];
  private readonly notes = new Map<string, { box: Box; keeper: Box | null; system: number }>();
  private readonly systems: GrowingSystem[] = [];
  private readonly bars: BarBox[] = [];
  /** Bars that have begun: the first staff line in one says where it stands. */
  private begun = 0;
  private width = 0;
  private height = 0;
  /** The page's margin: boxes are written inside it, the page is drawn around it. */
  private margin = { x: 0, y: 0 };

  constructor(private readonly placeKeepers: ReadonlySet<string>) {}

  read(svg: string): EngravedPage {
    const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false });
    parser.on('error', (error) => {
      throw error;
    });
    parser.on('opentag', (tag) => this.enter(tag));
    parser.on('text', (text) => {
      if (!this.isDropped() && text.trim()) this.out.push(escapeText(readable(text)));
    });
    parser.on('closetag', () => this.leave());
    parser.write(svg).close();
    return {
      width: this.width,
      height: this.height,
      staffSpace: this.staffSpace(),
      glyphs: this.glyphs(),
      firstLine: this.firstLine(),
      notes: this.noteBoxes(),
      systems: this.systems.map((system) => this.toSystem(system)),
      bars: this.bars,
    };
  }

  private enter(tag: SaxesTagPlain) {
    const attributes = tag.attributes as Readonly<Record<string, string>>;
    const { kind, isBox } = kindOf(attributes);
    if (!isBox) this.begin(kind);
    this.readPlace(kind, attributes);
    const keeper = kind === 'accid' && this.placeKeepers.has(this.noteUid() ?? '');
    this.takeShape(tag.name, attributes);

    const dropped = this.isDropped() || isBox || keeper || !ELEMENTS.has(tag.name);
    const uid = isBox ? null : uidOf(kind, attributes);
    // A box inside a dropped accidental must still be found, so the kind goes on the stack either way.
    this.open.push({ name: tag.name, kind: isBox ? `${kind} box` : kind, dropped, uid });
    if (dropped) return;
    if (this.open.length > 1) this.out.push(`<${tag.name}${safeAttributes(attributes, uid)}>`);
  }

  /** A system, a bar or words that move begin here. */
  private begin(kind: string) {
    if (kind === 'system') this.systems.push(newSystem(this.out.length));
    if (kind === 'measure') this.begun++;
    if (kind === 'tempo') this.systems.at(-1)?.tempos.push({ from: this.out.length, to: 0, box: null });
  }

  /** Size and margin of the page. */
  private readPlace(kind: string, attributes: Readonly<Record<string, string>>) {
    if (attributes['class'] === 'definition-scale') this.readSize(attributes);
    if (kind === 'page-margin') this.readMargin(attributes['transform'] ?? '');
  }

  /** Boxes, staff lines and beams: what has a place on the page. */
  private takeShape(name: string, attributes: Readonly<Record<string, string>>) {
    const around = this.open.at(-1)?.kind ?? '';
    if (name === 'rect' && around.endsWith(' box')) this.takeBox(this.onPage(boxOf(attributes)));
    if (name === 'path' && around === 'staff') this.takeStaffLine(attributes['d'] ?? '');
    if (name === 'polygon' && this.isInside('beam'))
      this.takeObstacle(this.onPage(polygonBox(attributes['points'] ?? '')));
  }

  private leave() {
    const element = this.open.pop()!;
    if (!element.dropped && this.open.length > 0) this.out.push(`</${element.name}>`);
    const system = this.systems.at(-1);
    if (element.kind === 'system' && system) system.to = this.out.length;
    if (element.kind === 'tempo' && system) system.tempos.at(-1)!.to = this.out.length;
  }

  private translation = () => `translate(${this.margin.x}, ${this.margin.y})`;

  /** Glyph definitions, then the system in its place; cut to its own height. */
  private firstLine(): string {
    const system = this.systems[0];
    if (!system) return '';
    const room = this.staffSpace();
    const solid = [...system.obstacles, ...system.tempos.flatMap(({ box }) => box ?? [])];
    const tops = solid.map((box) => box.y);
    const bottoms = solid.map((box) => box.y + box.height);
    const top = Math.min(system.top, ...tops) - room;
    const height = Math.max(system.bottom, ...bottoms) + room - top;
    const body = this.drawn(this.out.slice(system.from, system.to));
    return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 ${top} ${this.width} ${height}" stroke="#1a1512" fill="#1a1512">${this.glyphs()}${body}</svg>`;
  }

  private glyphs(): string {
    const before = this.out.slice(0, this.systems[0]?.from ?? this.out.length).join('');
    return /<defs.*?<\/defs>/s.exec(before)?.[0] ?? '';
  }

  /** A part of what was written out, in its place on the page. */
  private drawn = (parts: readonly string[]) => `<g transform="${this.translation()}">${parts.join('')}</g>`;

  private toSystem(system: GrowingSystem): SystemBox {
    const { top, bottom, left, right, obstacles, from, to } = system;
    const tempos = system.tempos.flatMap(({ box, from, to }) => (box ? [{ box, from, to }] : []));
    const own: string[] = [];
    let at = from;
    for (const tempo of tempos) {
      own.push(...this.out.slice(at, tempo.from));
      at = tempo.to;
    }
    own.push(...this.out.slice(at, to));
    return {
      staffTop: top,
      staffBottom: bottom,
      left,
      right,
      obstacles,
      svg: this.drawn(own),
      tempos: tempos.map(({ box, from, to }) => ({ box, svg: this.drawn(this.out.slice(from, to)) })),
    };
  }

  private readSize(attributes: Readonly<Record<string, string>>) {
    const [, , width, height] = (attributes['viewBox'] ?? '').split(' ').map(Number);
    this.width = width ?? 0;
    this.height = height ?? 0;
  }

  private readMargin(transform: string) {
    const [x, y] = (transform.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
    this.margin = { x: x ?? 0, y: y ?? 0 };
  }

  private onPage = (box: Box): Box => ({ ...box, x: box.x + this.margin.x, y: box.y + this.margin.y });

  private takeBox(box: Box) {
    const kind = this.open.at(-1)!.kind.replace(' box', '');
    const uid = this.noteUid();
    if (kind === 'note' && uid) this.notes.set(uid, { box, keeper: null, system: this.systems.length - 1 });
    if (kind === 'accid' && uid && this.placeKeepers.has(uid)) {
      const note = this.notes.get(uid);
      if (note) note.keeper = box;
      return;
    }
    if (box.width <= 0 || box.height <= 0) return;
    if (this.isInside('tempo')) this.takeTempo(box);
    else if (OBSTACLES.has(kind)) this.takeObstacle(box);
  }

  private takeTempo(box: Box) {
    const tempo = this.systems.at(-1)?.tempos.at(-1);
    if (tempo) tempo.box = tempo.box ? around(tempo.box, box) : box;
  }

  private takeObstacle(box: Box) {
    this.systems.at(-1)?.obstacles.push(box);
  }

  private takeStaffLine(path: string) {
    const numbers = (path.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
    const system = this.systems.at(-1);
    if (!system || numbers.length < 4) return;
    const x1 = numbers[0]! + this.margin.x;
    const y1 = numbers[1]! + this.margin.y;
    const x2 = numbers[2]! + this.margin.x;
    system.top = Math.min(system.top, y1);
    system.bottom = Math.max(system.bottom, y1);
    system.left = Math.min(system.left, x1);
    system.right = Math.max(system.right, x2);
    if (this.bars.length < this.begun)
      this.bars.push({ system: this.systems.length - 1, left: x1, right: x2 });
  }

  private noteBoxes(): NoteBox[] {
    return [...this.notes].map(([uid, { box, keeper, system }]) => ({ uid, ...box, keeper, system }));
  }

  private noteUid(): string | null {
    for (let k = this.open.length - 1; k >= 0; k--) if (this.open[k]!.uid) return this.open[k]!.uid;
    return null;
  }

  private isInside = (kind: string) => this.open.some((element) => element.kind === kind);
  private isDropped = () => this.open.at(-1)?.dropped ?? false;
  private staffSpace = () => (this.systems[0] ? (this.systems[0].bottom - this.systems[0].top) / 4 : 180);
}

const newSystem = (from: number): GrowingSystem => ({
  from,
  to: 0,
  tempos: [],
  top: Infinity,
  bottom: -Infinity,
  left: Infinity,
  right: 0,
  obstacles: [],
});

function around(a: Box, b: Box): Box {
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

const boxOf = (attributes: Readonly<Record<string, string>>): Box => ({
  x: Number(attributes['x'] ?? 0),
  y: Number(attributes['y'] ?? 0),
  width: Number(attributes['width'] ?? 0),
  height: Number(attributes['height'] ?? 0),
});

function polygonBox(points: string): Box {
  const numbers = (points.match(/-?\d+(\.\d+)?/g) ?? []).map(Number);
  const xs = numbers.filter((_, k) => k % 2 === 0);
  const ys = numbers.filter((_, k) => k % 2 === 1);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

const readable = (text: string) => text.replace(/[\uE000-\uF8FF]/g, (glyph) => MUSIC_IN_TEXT[glyph] ?? '');

const escapeText = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

function safeAttributes(attributes: Readonly<Record<string, string>>, uid: string | null): string {
  const kept = Object.entries(attributes).filter(([name, value]) => {
    if (name === 'id') return uid !== null || /^E[0-9A-F]{3}-/.test(value);
    return ATTRIBUTES.has(name);
  });
  const link = attributes['xlink:href'] ?? attributes['href'];
  if (link && /^#E[0-9A-F]{3}-\w+$/.test(link)) kept.push(['href', link]);
  return kept.map(([name, value]) => ` ${name}="${escapeText(value).replace(/"/g, '&quot;')}"`).join('');
}

/** The first class says what an element is; a box around it has one class more. */
function kindOf(attributes: Readonly<Record<string, string>>) {
  const classes = (attributes['class'] ?? '').split(' ');
  return { kind: classes[0] ?? '', isBox: classes.includes('bounding-box') };
}

const uidOf = (kind: string, attributes: Readonly<Record<string, string>>) =>
  kind === 'note' ? (attributes['id'] ?? null) : null;
