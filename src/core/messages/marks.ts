/** Why a mark is printed, in a teacher's words. */
import type { MarkCause } from '../marks/cause';
import type { Mark } from '../marks/mark';
import { roman } from '../music/roman';

/** Of which sign, where the sentence needs to know it. */
type Sign = Mark['kind'];

const SIGN_WORDS: Readonly<Partial<Record<Sign, string>>> = { finger: 'finger', string: 'string' };

const CAUSES: {
  readonly [C in MarkCause['code']]: (cause: Extract<MarkCause, { code: C }>, sign: Sign) => string;
} = {
  begins: () => 'the piece begins here',
  guide: () => 'the finger stays on its string through the shift',
  barre: () => 'one finger lies across the strings',
  column: () => 'the rest of its chord is printed',
  decided: () => 'decided by the teacher',
  touch: () => 'a harmonic is touched at this fret',
  file: () => 'it came with the file',
  shift: ({ position }) => `the hand comes to ${roman(position)}`,
  habit: ({ would }, sign) =>
    would === null
      ? 'nothing else says it'
      : `a student would take ${[SIGN_WORDS[sign], would].filter(Boolean).join(' ')}`,
  pattern: ({ formula }) => `${formula} goes round from here`,
  twin: ({ bar }) => `it is played otherwise in bar ${bar}`,
};

export const causeText = (cause: MarkCause, sign: Sign): string =>
  (CAUSES[cause.code] as (cause: MarkCause, sign: Sign) => string)(cause, sign);

/** What the mark is, as it would be said aloud. */
export function markText({ kind, text }: Pick<Mark, 'kind' | 'text'>): string {
  switch (kind) {
    case 'finger':
      return `finger ${text}`;
    case 'string':
      return `string ${text}`;
    case 'position':
      return `position ${text}`;
    case 'guide':
      return `guide finger ${text}`;
    case 'barre':
      return `barre ${text}`;
    case 'touch':
      return text.replace('harm.', 'harmonic touched at fret');
    case 'damp':
      return text === 'all' ? 'damp all strings' : 'damp the string';
    case 'unplanned':
      return 'no finger';
    case 'remark':
      return `remark: ${text}`;
    case 'expression':
      return text;
    case 'pluck':
      return text === 'down' || text === 'up' ? `plectrum ${text}` : text;
  }
}
