/** Loudness, articulation and words of a note, inserted into the document. Source: MusicXML 4.0, `direction`, `articulations`. */
import { type Expression, EXPRESSIONS, expressionValue } from '../../marks/expressions';
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
      ...(value.articulation ? [articulationOf(note, value.articulation)] : []),
    ];
  });
}

const insertion = (at: number, insert: string): Splice => ({ at, remove: 0, insert });

const directionOf = ({ attribute }: Expression, content: string): string =>
  `<direction placement="${EXPRESSIONS[attribute].below ? 'below' : 'above'}"><direction-type>${content}</direction-type></direction>`;

/** In notations of its own: a note may have several. */
const articulationOf = (note: XmlElement, sign: string): Splice =>
  insertion(afterNotationsPlace(note), `<notations><articulations>${sign}</articulations></notations>`);
