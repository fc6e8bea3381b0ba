/** What the signs on a copy mean: rows, of which those are printed whose signs are there. */

import type { Mark, MarkKind, MarkState } from '../marks/mark';
import type { Density } from '../marks/style';

interface Row {
  /** How the sign is written in words. */
  readonly sign: string;
  readonly meaning: string;
  readonly isThere: (marks: readonly Mark[]) => boolean;
}

const has = (kind: MarkKind) => (marks: readonly Mark[]) => marks.some((mark) => mark.kind === kind);
const hasState = (state: MarkState) => (marks: readonly Mark[]) => marks.some((mark) => mark.state === state);

const SIGNS: readonly Row[] = [
  {
    sign: '1 2 3 4',
    meaning: 'fingers of the left hand, index to little finger; 0 open',
    isThere: has('finger'),
  },
  {
    sign: 'p i m a',
    meaning: 'thumb, index, middle and ring finger of the right hand',
    isThere: (marks) => marks.some(({ kind, text }) => kind === 'pluck' && text !== 'down' && text !== 'up'),
  },
  {
    sign: '⊓ V',
    meaning: 'plectrum down, up',
    isThere: (marks) =>
      marks.some(({ kind, text }) => kind === 'pluck' && (text === 'down' || text === 'up')),
  },
  { sign: 'in a circle', meaning: 'string; a dashed line: as far as it goes', isThere: has('string') },
  { sign: 'V', meaning: 'position: the fret where finger 1 lies or would lie', isThere: has('position') },
  {
    sign: 'C V',
    meaning: 'barre at that fret, as far as the line goes; a fraction: over so many of six strings',
    isThere: has('barre'),
  },
  { sign: 'harm. 7', meaning: 'harmonic, touched at that fret', isThere: has('touch') },
  { sign: '2 – 2', meaning: 'guide finger: it stays on its string through the shift', isThere: has('guide') },
  {
    sign: 'crossed ring',
    meaning: 'stop the string; with a second ring: all strings',
    isThere: has('damp'),
  },
  {
    sign: '> · –',
    meaning: 'accent, short, held',
    isThere: (marks) => marks.some(({ kind, text }) => kind === 'expression' && /^[>·–]$/.test(text)),
  },
  { sign: '?', meaning: 'no finger reaches it with the rest', isThere: has('unplanned') },
];

const STATES: readonly Row[] = [
  { sign: 'slanted', meaning: 'proposed', isThere: hasState('pencil') },
  { sign: 'bold', meaning: 'decided by the teacher', isThere: hasState('ink') },
  { sign: '[ ]', meaning: 'printed in the score', isThere: hasState('printed') },
  {
    sign: '≠',
    meaning: 'other than printed in the score',
    isThere: (marks) => marks.some((mark) => mark.departs),
  },
];

/** The rule by which a copy with the fewest marks is read; see `readNote` and `readLetters`. */
export const READING =
  'Where nothing is printed: play the note where it was played a moment ago, or in the same music before; open strings in first position, elsewhere what lies under the hand; one finger per fret; figures of the right hand go on as they began, the thumb has the bass, i and m take turns in lines.';

export interface LegendRow {
  readonly sign: string;
  readonly meaning: string;
}

export function legendOf(
  marks: readonly Mark[],
  density: Density,
  looks: 'told' | 'alike',
): { readonly rows: readonly LegendRow[]; readonly reading: string | null } {
  const states = STATES.filter((row) => row.isThere(marks));
  // Where all marks have one state there is nothing to tell apart.
  const told = looks === 'told' && states.length > 1 ? states : [];
  const rows = [...SIGNS.filter((row) => row.isThere(marks)), ...told];
  return {
    rows: rows.map(({ sign, meaning }) => ({ sign, meaning })),
    reading: density === 'sparse' ? READING : null,
  };
}
