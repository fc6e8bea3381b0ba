/** The parts of a document, and which of them looks like a guitar. */
import { childNamed, childrenNamed, childText, descendants, type XmlElement } from './xmlTree';

export interface PartInfo {
  readonly index: number;
  readonly name: string;
  readonly pitchedNotes: number;
  readonly unpitchedNotes: number;
  /** All its staves are tablature. */
  readonly tablature: boolean;
}

/** A part with what tells a guitar from others. */
export interface PartEvidence extends PartInfo {
  readonly element: XmlElement;
  readonly guitarPoints: number;
}

export const infoOf = ({ index, name, pitchedNotes, unpitchedNotes, tablature }: PartEvidence): PartInfo => ({
  index,
  name,
  pitchedNotes,
  unpitchedNotes,
  tablature,
});

/** The part with the most signs of a guitar; of equal ones the first. Null when none has notes. */
export function maybeGuitarPart(parts: readonly PartEvidence[]): PartEvidence | null {
  return parts
    .filter((part) => part.pitchedNotes > 0)
    .reduce<PartEvidence | null>(
      (chosen, part) => (!chosen || part.guitarPoints > chosen.guitarPoints ? part : chosen),
      null,
    );
}

/**
 * A second part that is the same music as tablature: as many notes, all staves tablature. Notation programs
 * write a guitar as two parts when its two staves were made as two instruments.
 */
export function maybeTablatureTwin(parts: readonly PartEvidence[], own: PartEvidence): PartEvidence | null {
  if (own.tablature) return null;
  return parts.find((part) => part.tablature && part.pitchedNotes === own.pitchedNotes) ?? null;
}

/** The instrument's name in the languages that notation programs come in; common practice. */
const NAMES = /guit|gitar|kitara|gitár|chitarra|violão|viol[aã]o|kytara|ギター|吉他|гитара|vihuela/i;
const OTHER_GUITARS = /bass|baixo|ukulele|electric/i;

/** All parts of the document in its order. */
export function readParts(root: XmlElement): readonly PartEvidence[] {
  const list = childNamed(root, 'part-list');
  const entries = list ? childrenNamed(list, 'score-part') : [];
  return childrenNamed(root, 'part').map((element, index) => {
    const entry = entries.find((one) => one.attributes['id'] === element.attributes['id']) ?? null;
    const counts = countsOf(element);
    const name = nameOf(entry);
    return { element, index, name, ...counts, guitarPoints: guitarPoints(entry, name, element, counts) };
  });
}

function guitarPoints(
  entry: XmlElement | null,
  name: string,
  part: XmlElement,
  counts: { tablature: boolean; staves: number },
): number {
  const words = entry
    ? [name, ...textsBelow(entry, ['instrument-name', 'instrument-sound'])].join(' ')
    : name;
  const program = Number(entry ? (textsBelow(entry, ['midi-program'])[0] ?? NaN) : NaN);
  let points = 0;
  if (NAMES.test(words)) points += OTHER_GUITARS.test(words) ? 6 : 10;
  // General MIDI programs 25 to 32 are guitars, 25 the nylon-stringed one.
  if (program >= 25 && program <= 32) points += program === 25 ? 5 : 3;
  if (clefsOf(part).some((clef) => childText(clef, 'sign') === 'G' && octaveOf(clef) === -1)) points += 4;
  if (technicalCount(part) > 0) points += 3;
  // Where the same music stands in notation, that is the part to read.
  if (counts.tablature) points -= 8;
  if (counts.staves > 1 && !clefsOf(part).some((clef) => childText(clef, 'sign') === 'TAB')) points -= 2;
  return points;
}

function countsOf(part: XmlElement) {
  let pitchedNotes = 0;
  let unpitchedNotes = 0;
  for (const measure of childrenNamed(part, 'measure')) {
    for (const note of childrenNamed(measure, 'note')) {
      if (childNamed(note, 'pitch')) pitchedNotes++;
      else if (childNamed(note, 'unpitched')) unpitchedNotes++;
    }
  }
  const clefs = clefsOf(part);
  const staves = Math.max(1, ...textsBelow(part, ['staves']).map(Number).filter(Number.isFinite));
  const tablature = clefs.length > 0 && clefs.every((clef) => childText(clef, 'sign') === 'TAB');
  return { pitchedNotes, unpitchedNotes, staves, tablature };
}

const clefsOf = (part: XmlElement): readonly XmlElement[] =>
  childrenNamed(part, 'measure').flatMap((measure) =>
    childrenNamed(measure, 'attributes').flatMap((one) => childrenNamed(one, 'clef')),
  );

const octaveOf = (clef: XmlElement) => Number(childText(clef, 'clef-octave-change') ?? 0);

const technicalCount = (part: XmlElement) =>
  [...descendants(part)].filter((one) => ['string', 'pluck', 'fret'].includes(one.name)).length;

const textsBelow = (element: XmlElement, names: readonly string[]): string[] =>
  [...descendants(element)].filter((one) => names.includes(one.name)).map((one) => one.text.trim());

const nameOf = (entry: XmlElement | null) =>
  (entry && (childText(entry, 'part-name') || childText(entry, 'part-abbreviation'))) || '';
