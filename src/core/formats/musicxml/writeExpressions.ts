/** Loudness, articulation, slides and words of a note, inserted into the document. Source: MusicXML 4.0, `direction`, `notations`. */
import { type Expression, EXPRESSIONS, expressionValue } from '../../marks/expressions';
import { slideTargetOf } from '../../score/slideCorrections';
import { uidsOf } from './readEvents';
import type { ScoreDocument } from './readScore';
import type { Splice } from './splice';
import { afterNotationsPlace, startOfChord } from './writeFingering';
import type { XmlElement } from './xmlTree';

export function expressionSplices(
  document: ScoreDocument,
  expressions: readonly Expression[],
): readonly Splice[] {
  if (expressions.length === 0) return [];
  const noteOf = new Map([...uidsOf(document.part, document.uids)].map(([note, uid]) => [uid, note]));
  return expressions.flatMap((one): readonly Splice[] => {
    const note = noteOf.get(one.uid);
    const value = expressionValue(one);
    if (!note || !value) return [];
    return [
      ...(value.direction
        ? [insertion(startOfChord(document.part, note), directionOf(one, value.direction))]
        : []),
      ...(value.articulation
        ? [notationOf(note, `<articulations>${value.articulation}</articulations>`)]
        : []),
      ...(value.ornament ? [notationOf(note, `<ornaments>${value.ornament}</ornaments>`)] : []),
      ...(value.slide ? slideOrWord(document, noteOf, note, one) : []),
    ];
  });
}

/** A slide that leads to no note, into a rest or off the end, is a word. */
function slideOrWord(
  document: ScoreDocument,
  noteOf: ReadonlyMap<string, XmlElement>,
  note: XmlElement,
  one: Expression,
): readonly Splice[] {
  const splices = slideSplices(document, noteOf, one.uid);
  if (splices.length > 0) return splices;
  return [insertion(startOfChord(document.part, note), directionOf(one, `<words>${one.value}</words>`))];
}

/** Of the six numbers that version 3.0 has those that files hardly use; slides of two voices may lie over each other. */
const FIRST_SLIDE_NUMBER = 4;
const SLIDE_NUMBERS = 3;

function slideSplices(
  { score }: ScoreDocument,
  noteOf: ReadonlyMap<string, XmlElement>,
  uid: string,
): readonly Splice[] {
  const from = score.notes.find((note) => note.uid === uid);
  const to = from && slideTargetOf(score.notes, from);
  const [start, stop] = [noteOf.get(uid), to && noteOf.get(to.uid)];
  if (!start || !stop) return [];
  const number = FIRST_SLIDE_NUMBER + (score.notes.indexOf(from!) % SLIDE_NUMBERS);
  const end = (type: string) => `<slide type="${type}" number="${number}" line-type="solid"/>`;
  return [notationOf(start, end('start')), notationOf(stop, end('stop'))];
}

const insertion = (at: number, insert: string): Splice => ({ at, remove: 0, insert });

const directionOf = ({ attribute }: Expression, content: string): string =>
  `<direction placement="${EXPRESSIONS[attribute].below ? 'below' : 'above'}"><direction-type>${content}</direction-type></direction>`;

/** In notations of its own: a note may have several. */
const notationOf = (note: XmlElement, inner: string): Splice =>
  insertion(afterNotationsPlace(note), `<notations>${inner}</notations>`);
