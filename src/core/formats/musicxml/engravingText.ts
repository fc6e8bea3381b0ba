/**
 * The document as the engraver gets it: Oculon's uids as ids, no fingering of its own, and a natural sign on
 * each note without an accidental. The sign is taken out of the engraved page again; it only keeps a place to
 * the left of the notehead free for the numeral.
 */
import type { ScoreDocument } from './readScore';
import { uidsOf } from './readEvents';
import type { Splice } from './splice';
import { childNamed, childrenNamed, descendants, type XmlElement } from './xmlTree';

export interface EngravingText {
  readonly splices: readonly Splice[];
  /** Uids of the notes that got a place-keeping accidental. */
  readonly placeKeepers: readonly string[];
}

export function engravingSplices(document: ScoreDocument): EngravingText {
  const splices: Splice[] = [];
  const placeKeepers: string[] = [];
  for (const [note, uid] of uidsOf(document.part)) {
    splices.push(idSplice(note, uid));
    for (const notations of childrenNamed(note, 'notations')) {
      for (const technical of childrenNamed(notations, 'technical')) {
        splices.push({ at: technical.start, remove: technical.end - technical.start, insert: '' });
      }
    }
    if (childNamed(note, 'accidental') || isTiedOver(note)) continue;
    placeKeepers.push(uid);
    splices.push({ at: accidentalPlace(note), remove: 0, insert: '<accidental>natural</accidental>' });
  }
  for (const element of descendants(document.root)) {
    // Page layout of another program means nothing at this width, and old id attributes could clash.
    if (['print', 'defaults', 'credit'].includes(element.name)) {
      splices.push({ at: element.start, remove: element.end - element.start, insert: '' });
    }
    // One part needs no name in front of every system.
    if (element.name === 'part-name' || element.name === 'part-abbreviation') {
      splices.push({ at: element.openEnd, remove: element.closeStart - element.openEnd, insert: '' });
    }
  }
  return { splices, placeKeepers };
}

const isTiedOver = (note: XmlElement) =>
  childrenNamed(note, 'tie').some((tie) => tie.attributes['type'] === 'stop');

function idSplice(note: XmlElement, uid: string): Splice {
  const nameEnd = note.start + '<note'.length;
  const attributes = Object.entries(note.attributes)
    .filter(([name]) => name !== 'id')
    .map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`);
  return {
    at: nameEnd,
    remove: note.openEnd - 1 - nameEnd,
    insert: ` id="${uid}"${attributes.join('')}`,
  };
}

const escapeAttribute = (value: string) =>
  value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

/** In a note, an accidental stands before these. Source: MusicXML 4.0, `note`. */
const AFTER_ACCIDENTAL = new Set([
  'time-modification',
  'stem',
  'notehead',
  'notehead-text',
  'staff',
  'beam',
  'notations',
  'lyric',
  'play',
  'listen',
]);

function accidentalPlace(note: XmlElement): number {
  const later = note.children.find((child) => AFTER_ACCIDENTAL.has(child.name));
  return later ? later.start : note.closeStart;
}
