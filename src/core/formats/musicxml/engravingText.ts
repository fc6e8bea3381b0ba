/**
 * The document as the engraver gets it: one part, Oculon's uids as ids, the teacher's corrections, no fingering
 * of its own, and a natural sign on each note without an accidental. The sign is taken out of the engraved page
 * again; it only keeps a place to the left of the notehead free for the numeral.
 */
import type { Corrections } from '../../score/corrections';
import { correctionSplices, placeBefore } from './correctionSplices';
import type { ScoreDocument } from './readScore';
import { uidsOf } from './readEvents';
import { type Splice, withoutRange } from './splice';
import { childNamed, childrenNamed, childText, type XmlElement } from './xmlTree';

export interface EngravingText {
  readonly splices: readonly Splice[];
  /** Uids of the notes that got a place-keeping accidental. */
  readonly placeKeepers: readonly string[];
}

/** The same of the first bars alone, for whoever cannot wait for the whole; null where there are no more than these. */
export function maybeBeginning(
  document: ScoreDocument,
  corrections: Corrections,
  bars: number,
): EngravingText | null {
  const measures = childrenNamed(document.part, 'measure');
  const first = measures[bars];
  if (!first) return null;
  const whole = engravingSplices(document, corrections);
  return { ...whole, splices: withoutRange(whole.splices, first.start, measures.at(-1)!.end) };
}

/** @param systemsBegin indices of the bars that begin a system; null lets the engraver break as it likes */
export function engravingSplices(
  document: ScoreDocument,
  corrections: Corrections,
  systemsBegin: ReadonlySet<number> | null = null,
): EngravingText {
  const tablatureAlone = isTablatureAlone(document);
  const corrected = correctionSplices(document, corrections.notes, tablatureAlone);
  const hidden = tablatureStaves(document);
  const gone = outOfSight(document, hidden);
  const splices: Splice[] = [...corrected.splices, ...gone, ...breaks(document, systemsBegin)];
  const placeKeepers: string[] = [];
  for (const [note, uid] of uidsOf(document.part, document.uids)) {
    if (hidden.has(childText(note, 'staff') ?? '1')) continue;
    splices.push(idSplice(note, uid));
    // Tablature draws no stems; shown as notation it needs them.
    if (tablatureAlone) for (const stem of childrenNamed(note, 'stem')) splices.push(removal(stem));
    for (const notations of childrenNamed(note, 'notations')) {
      for (const technical of childrenNamed(notations, 'technical')) splices.push(removal(technical));
    }
    const drawn = corrected.accidentals.get(uid) ?? childNamed(note, 'accidental') !== null;
    if (drawn || isTiedOver(note)) continue;
    placeKeepers.push(uid);
    splices.push({ at: placeBefore(note), remove: 0, insert: '<accidental>natural</accidental>' });
  }
  return { splices, placeKeepers };
}

const breaks = (document: ScoreDocument, systemsBegin: ReadonlySet<number> | null): readonly Splice[] =>
  childrenNamed(document.part, 'measure').flatMap((measure, k) =>
    k > 0 && systemsBegin?.has(k)
      ? [{ at: measure.openEnd, remove: 0, insert: '<print new-system="yes"/>' }]
      : [],
  );

const removal = (element: XmlElement, insert = ''): Splice => ({
  at: element.start,
  remove: element.end - element.start,
  insert,
});

function isTablatureAlone(document: ScoreDocument): boolean {
  const clefs = clefsOf(document.part);
  return clefs.length > 0 && clefs.every((clef) => childText(clef, 'sign') === 'TAB');
}

/** Numbers of the staves of tablature; empty where tablature is all there is. */
function tablatureStaves(document: ScoreDocument): ReadonlySet<string> {
  const clefs = clefsOf(document.part);
  const tab = clefs.filter((clef) => childText(clef, 'sign') === 'TAB');
  if (tab.length === clefs.length) return new Set();
  return new Set(tab.map((clef) => clef.attributes['number'] ?? '1'));
}

const clefsOf = (part: XmlElement) =>
  childrenNamed(part, 'measure').flatMap((measure) =>
    childrenNamed(measure, 'attributes').flatMap((one) => childrenNamed(one, 'clef')),
  );

const G_CLEF_8 = '<clef><sign>G</sign><line>2</line><clef-octave-change>-1</clef-octave-change></clef>';

/** Everything that is not engraved: other parts, tablature, another program's page layout, the part's name. */
function outOfSight(document: ScoreDocument, hidden: ReadonlySet<string>): readonly Splice[] {
  const splices: Splice[] = [];
  const partId = document.part.attributes['id'];
  const visit = (element: XmlElement) => {
    for (const child of element.children) {
      const splice = hiddenSplice(child, document, partId, hidden);
      if (splice) splices.push(splice);
      else visit(child);
    }
  };
  visit(document.root);
  return splices;
}

function hiddenSplice(
  element: XmlElement,
  document: ScoreDocument,
  partId: string | undefined,
  hidden: ReadonlySet<string>,
): Splice | null {
  switch (element.name) {
    // Old id attributes could clash, and the layout of another program means nothing at this width.
    case 'print':
    case 'defaults':
    case 'credit':
    case 'part-group':
    case 'staff-details':
      return removal(element);
    case 'part':
      return element === document.part ? null : removal(element);
    case 'score-part':
      return element.attributes['id'] === partId ? null : removal(element);
    // One part needs no name in front of every system.
    case 'part-name':
    case 'part-abbreviation':
      return { at: element.openEnd, remove: element.closeStart - element.openEnd, insert: '' };
    case 'clef':
      return hiddenClef(element, hidden);
    // The engraver plays a repeat as often as it is told to.
    case 'repeat':
      return element.attributes['times'] === undefined ? null : withoutTimes(element);
    case 'key':
    case 'time':
      return shownAgain(element);
    case 'staves':
      return hidden.size > 0 ? removal(element) : null;
    case 'direction':
      return hidden.has(childText(element, 'staff') ?? '1') ? removal(element) : null;
    case 'note':
      return hidden.has(childText(element, 'staff') ?? '1') ? hiddenNote(element) : null;
    default:
      return null;
  }
}

function withoutTimes(repeat: XmlElement): Splice {
  const nameEnd = repeat.start + 1 + repeat.name.length;
  const kept = Object.entries(repeat.attributes)
    .filter(([name]) => name !== 'times')
    .map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`);
  const closing = repeat.selfClosing ? '/>' : '>';
  return { at: nameEnd, remove: repeat.openEnd - nameEnd, insert: `${kept.join('')}${closing}` };
}

/** Tablature hides key and metre; the notation in its place must not. */
function shownAgain(element: XmlElement): Splice | null {
  if (element.attributes['print-object'] !== 'no') return null;
  const nameEnd = element.start + 1 + element.name.length;
  return { at: nameEnd, remove: element.openEnd - 1 - nameEnd, insert: '' };
}

function hiddenClef(clef: XmlElement, hidden: ReadonlySet<string>): Splice | null {
  if (childText(clef, 'sign') !== 'TAB') return null;
  return removal(clef, hidden.has(clef.attributes['number'] ?? '1') ? '' : G_CLEF_8);
}

/** A note on the hidden staff leaves its time behind. */
function hiddenNote(note: XmlElement): Splice {
  const duration = childText(note, 'duration');
  const moves = duration !== null && !childNamed(note, 'chord') && !childNamed(note, 'grace');
  return removal(note, moves ? `<forward><duration>${duration}</duration></forward>` : '');
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
