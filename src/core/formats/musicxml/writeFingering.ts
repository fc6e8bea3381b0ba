/**
 * Fingering written into the imported document by insertion only: taking the insertions out again gives back
 * the original text. Source of the elements and their order: MusicXML 4.0, `note`, `notations`, `technical`.
 */
import { isPick, type Pluck } from '../../score/model';
import type { Damp } from '../../marks/dampMarks';
import { uidsOf } from './readEvents';
import type { ScoreDocument } from './readScore';
import type { Splice } from './splice';
import { childNamed, childrenNamed, childText, type XmlElement } from './xmlTree';

/** What is written at one note. */
export interface NoteFingering {
  /** Null for what is not said. */
  readonly finger: number | null;
  readonly string: number | null;
  readonly fret: number | null;
  /** Null also where nothing is plucked (the second note of a slur). */
  readonly pluck: Pluck | null;
}

/** A barre over noteheads of consecutive strikes, written as a bracket with words. */
export interface BarreSpan {
  readonly fromUid: string;
  readonly toUid: string;
  readonly label: string;
}

/** Insertions that put `fingering` (by note uid) into the document. Notes without an entry are left alone. */
export function fingeringSplices(
  document: ScoreDocument,
  fingering: ReadonlyMap<string, NoteFingering>,
  barres: readonly BarreSpan[] = [],
): Splice[] {
  const splices: Splice[] = [];
  const noteOf = new Map<string, XmlElement>();
  for (const [element, uid] of uidsOf(document.part, document.uids)) {
    noteOf.set(uid, element);
    const marks = fingering.get(uid);
    if (marks) splices.push(...noteSplices(element, marks));
  }
  for (const [k, barre] of barres.entries()) splices.push(...barreSplices(document.part, noteOf, barre, k));
  return splices;
}

function noteSplices(note: XmlElement, marks: NoteFingering): Splice[] {
  const notations = childrenNamed(note, 'notations');
  const technical = notations
    .map((one) => childNamed(one, 'technical'))
    .find((one) => one && !one.selfClosing);
  const content = technicalContent(marks, technical ?? null);
  if (!content) return [];
  if (technical) return [insertion(technical.closeStart, content)];
  const inner = `<technical>${content}</technical>`;
  const open = notations.find((one) => !one.selfClosing);
  if (open) return [insertion(open.closeStart, inner)];
  return [insertion(afterNotationsPlace(note), `<notations>${inner}</notations>`)];
}

const insertion = (at: number, insert: string): Splice => ({ at, remove: 0, insert });

const textOf = (value: number | null) => (value === null ? null : String(value));

/** What the file says already is not said twice. */
function technicalContent(marks: NoteFingering, present: XmlElement | null): string {
  const rows: readonly (readonly [string, string | null])[] = [
    ['fingering', textOf(marks.finger)],
    ['pluck', isPick(marks.pluck) ? null : marks.pluck],
    ['string', textOf(marks.string)],
    ['fret', textOf(marks.fret)],
  ];
  const said = rows
    .filter(([name, value]) => value !== null && (present ? childText(present, name) : null) !== value)
    .map(([name, value]) => `<${name}>${value}</${name}>`)
    .join('');
  // Strokes of a plectrum are written as those of a bow. Source: MusicXML 4.0, `down-bow`, `up-bow`.
  if (!isPick(marks.pluck)) return said;
  const bow = `${marks.pluck}-bow`;
  return present && childNamed(present, bow) ? said : `<${bow}/>${said}`;
}

/** `notations` stand after everything else in a note but its lyrics and playback. */
export function afterNotationsPlace(note: XmlElement): number {
  const later = note.children.find((child) => ['lyric', 'play', 'listen'].includes(child.name));
  return later ? later.start : note.closeStart;
}

function barreSplices(
  part: XmlElement,
  noteOf: ReadonlyMap<string, XmlElement>,
  barre: BarreSpan,
  index: number,
): Splice[] {
  const from = noteOf.get(barre.fromUid);
  const to = noteOf.get(barre.toUid);
  if (!from || !to) return [];
  const number = (index % 6) + 1;
  const direction = (content: string) => `<direction placement="above">${content}</direction>`;
  const bracket = (type: 'start' | 'stop') =>
    `<direction-type><bracket type="${type}" number="${number}" line-end="${type === 'start' ? 'none' : 'down'}" line-type="dashed"/></direction-type>`;
  const start = direction(
    `<direction-type><words>${barre.label}</words></direction-type>${bracket('start')}`,
  );
  return [
    insertion(startOfChord(part, from), start),
    insertion(endOfChord(part, to), direction(bracket('stop'))),
  ];
}

/** Damping as a direction after the note's chord. Source: MusicXML 4.0, `damp`, `damp-all`. */
export function dampSplices(document: ScoreDocument, damps: ReadonlyMap<string, Damp>): readonly Splice[] {
  if (damps.size === 0) return [];
  return [...uidsOf(document.part, document.uids)].flatMap(([note, uid]) => {
    const damp = damps.get(uid);
    if (!damp) return [];
    const sign = damp === 'all' ? '<damp-all/>' : '<damp/>';
    const direction = `<direction placement="above"><direction-type>${sign}</direction-type></direction>`;
    return [insertion(endOfChord(document.part, note), direction)];
  });
}

const siblingsOf = (part: XmlElement, note: XmlElement) =>
  childrenNamed(part, 'measure').find((one) => one.children.includes(note))!.children;

/** Before the first note of the chord that `note` belongs to. */
export function startOfChord(part: XmlElement, note: XmlElement): number {
  const siblings = siblingsOf(part, note);
  let k = siblings.indexOf(note);
  while (k > 0 && childNamed(siblings[k]!, 'chord')) k--;
  return siblings[k]!.start;
}

/** After the last note of the chord that `note` belongs to, so that no direction splits a chord. */
function endOfChord(part: XmlElement, note: XmlElement): number {
  const siblings = siblingsOf(part, note);
  let last = note;
  for (let k = siblings.indexOf(note) + 1; k < siblings.length; k++) {
    const next = siblings[k]!;
    if (next.name !== 'note' || !childNamed(next, 'chord')) break;
    last = next;
  }
  return last.end;
}
