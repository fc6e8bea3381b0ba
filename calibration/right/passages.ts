/**
 * Short passages of invented music for the right hand: strings, rhythm, and every set of letters that the school
 * accepts. Tokens "strings letters": "3i" the third string by i, "_5p" the fifth string in the bass, chords joined by
 * "+", "*n" for n sixteenths (otherwise one), "-" a rest, "~" a note that is slurred to and not plucked. Letters:
 * common practice.
 */
import type { RightSchoolId } from '../../src/core/fingering/right/rules/schools';
import type { Texture } from '../../src/core/figures/texture';
import type { TremoloId } from '../../src/core/fingering/right/rules/tremolo';

export interface RightPassage {
  readonly id: string;
  /** Quarters a minute; a token is a sixteenth. */
  readonly bpm: number;
  /** The same strings in every row. */
  readonly accepted: readonly string[];
  readonly why: string;
  readonly school?: RightSchoolId;
  readonly tremolo?: TremoloId;
  /** Named where the strings alone do not say it: pitches are made up here. */
  readonly texture?: Texture;
}

/** Letters dealt to strings in turn, from each of the starts. */
const turns = (strings: string, ...orders: readonly string[]): readonly string[] =>
  orders.map((order) => {
    let n = 0;
    return strings
      .split(' ')
      .map((token) => {
        if (token === '-' || token.startsWith('~')) return token;
        const [string, length] = token.split('*');
        return `${string}${order[n++ % order.length]}${length ? `*${length}` : ''}`;
      })
      .join(' ');
  });

const passage = (
  id: string,
  bpm: number,
  why: string,
  accepted: readonly string[],
  rest: Partial<RightPassage> = {},
): RightPassage => ({ id, bpm, why, accepted, ...rest });

/** The outermost bass note of a run may be p. Source: handbook 13. */
const orBassByThumb = (rows: readonly string[]): readonly string[] => [
  ...rows,
  ...rows.map((row) => row.replace(/^(\d)\w/, '$1p')),
];

const ARPEGGIOS: readonly RightPassage[] = [
  passage('up', 84, 'p i m a on their strings', ['_5p 3i 2m 1a _5p 3i 2m 1a']),
  passage('down', 84, 'p a m i on their strings', ['_5p 1a 2m 3i _5p 1a 2m 3i']),
  passage('up-and-down', 72, 'the double arpeggio', ['_6p 3i 2m 1a 2m 3i _6p 3i 2m 1a 2m 3i']),
  passage('down-and-up', 72, 'down and up', ['_6p 1a 2m 3i 2m 1a _6p 1a 2m 3i 2m 1a']),
  passage('on-4-3-2', 84, 'the set on 4 3 2', ['_6p 4i 3m 2a _6p 4i 3m 2a', '_6p 4p 3i 2m _6p 4p 3i 2m']),
  passage('three', 96, 'p i m on 2 and 1', ['_4p 2i 1m _4p 2i 1m', '_4p 2m 1a _4p 2m 1a']),
  passage('three-inner', 96, 'p i m on 3 and 2', ['_5p 3i 2m _5p 3i 2m']),
  passage('moving-bass', 80, 'p walks, the fingers stay', ['_6p 3i 2m 1a _5p 3i 2m 1a _4p 3i 2m 1a']),
  passage('alternating-bass', 88, 'p to and fro', [
    '_5p 3i _4p 2m _5p 3i _4p 2m',
    '_5p 3i _4p 2m _5p 3m _4p 2m',
  ]),
  passage('middle-first', 80, 'p m i a', ['_5p 2m 3i 1a _5p 2m 3i 1a']),
  passage('ring-first', 80, 'p a i m', ['_5p 1a 3i 2m _5p 1a 3i 2m']),
  passage('pinched', 84, 'bass and top together, then inwards', ['_5p+1a 2m 3i 2m _5p+1a 2m 3i 2m']),
  passage('pinched-pairs', 76, 'i m against p, then a', ['_5p 3i+2m 1a 3i+2m _5p 3i+2m 1a 3i+2m']),
  passage('slow', 46, 'slow, and still stations', ['_5p 3i 2m 1a 2m 3i _4p 3i 2m 1a 2m 3i']),
  passage('four-strings-up', 84, 'p on 4, set on 3 2 1', ['_4p 3i 2m 1a 2m 3i 2m 1a']),
  passage('two-bass-strokes', 76, 'p twice, then the fingers', ['_6p _5p 3i 2m 1a 2m _6p _5p 3i 2m 1a 2m']),
];

const LINES: readonly RightPassage[] = [
  passage('repeated', 100, 'two fingers alternate', turns('2 2 2 2 2 2 2 2', 'im', 'mi', 'ma', 'am')),
  passage('repeated-first', 100, 'two fingers alternate', turns('1 1 1 1 1 1 1 1', 'im', 'mi', 'ma', 'am')),
  passage('repeated-slow', 60, 'and when it is slow', turns('3 3 3 3 3 3 3 3', 'im', 'mi')),
  passage(
    'down-one-string',
    96,
    'three notes, then the next string',
    turns('1 1 1 2 2 2', 'mim', 'im', 'mi', 'ami').concat(['1m 1i 1m 2i 2m 2i', '1a 1m 1a 2m 2i 2m']),
  ),
  passage('two-a-string-up', 92, 'the higher finger on the higher string', [
    '3i 3m 2i 2m 1i 1m',
    '3m 3i 2m 2i 1m 1i',
    '3i 3m 2m 2i 1a 1m',
    '3m 3i 2m 2i 1m 1a',
    '3m 3i 2m 2i 1a 1m',
  ]),
  passage('three-a-string-up', 92, 'i to m over the change', [
    '3m 3i 3m 2i 2m 2i',
    '3i 3m 3i 2m 2i 2m',
    '3m 3i 3m 2a 2m 2a',
    '3m 3i 3m 2a 2m 2i',
  ]),
  passage('neighbour', 92, 'a neighbour string and back', ['2i 1m 2i 1m 2i 1m', '2m 1a 2m 1a 2m 1a']),
  passage('neighbour-down', 92, 'down and back', ['1m 2i 1m 2i 1m 2i', '1a 2m 1a 2m 1a 2m']),
  passage('skip', 88, 'over a string: the far fingers', ['3i 1a 3i 1a 3i 1a', '3i 1m 3i 1m 3i 1m']),
  passage(
    'turn',
    84,
    'a turn on one string',
    turns('2 2 2 2 1*2 2', 'imimai', 'mimiam').concat([
      '2i 2m 2i 2m 1a*2 2m',
      '2m 2i 2m 2i 1m*2 2i',
      '2i 2m 2i 2m 1a*2 2i',
      '2m 2i 2m 2i 1a*2 2m',
      '2i 2m 2i 2m 1m*2 2i',
    ]),
  ),
  passage('slur-flips', 96, 'the slur gives the count to the other finger', [
    '2i 2m 2i ~2 2m 2i 2m 2i',
    '2m 2i 2m ~2 2i 2m 2i 2m',
  ]),
  passage('slur-before-change', 96, 'the slur makes the change of string fall well', [
    '3i 3m ~3 2i 2m 2i',
    '3m 3i ~3 2m 2i 2m',
    '3i 3m ~3 2a 2m 2a',
    '3i 3m ~3 2a 2m 2i',
    '3m 3i ~3 2m 2a 2m',
  ]),
  passage('rest', 90, 'a rest frees every finger', [
    '2i 2m 2i - - - 2m 2i 2m',
    '2i 2m 2i - - - 2i 2m 2i',
    '2m 2i 2m - - - 2m 2i 2m',
    '2m 2i 2m - - - 2i 2m 2i',
  ]),
  passage('zigzag', 80, 'three strings outward and back', ['3i 2m 1a 2m 3i 2m 1a 2m']),
];

const CHORDS: readonly RightPassage[] = [
  passage('four', 60, 'p i m a', ['_5p+3i+2m+1a*4 _5p+3i+2m+1a*4']),
  passage('four-low', 60, 'p i m a on 6 5 4 3, or p brushes', ['_6p+5i+4m+3a*4', '_6p+5p+4i+3m*4']),
  passage('three', 60, 'p i m', ['_5p+3i+2m*4 _5p+3i+2m*4']),
  passage('three-top', 60, 'p with m a or i m', ['_4p+2m+1a*4', '_4p+2i+1m*4']),
  passage('two', 66, 'p with i or m', ['_5p+2m*4', '_5p+2i*4']),
  passage('five', 54, 'p brushes two', ['_6p+5p+4i+3m+2a*4', '_6p+5p+3i+2m+1a*4'].slice(0, 1)),
  passage('six', 54, 'p brushes three', ['_6p+5p+4p+3i+2m+1a*4']),
  passage('far-bass', 60, 'bass far from the top', [
    '_6p+1m*4 _6p+1m*4',
    '_6p+1a*4 _6p+1a*4',
    '_6p+1i*4 _6p+1m*4',
    '_6p+1m*4 _6p+1i*4',
    '_6p+1m*4 _6p+1a*4',
    '_6p+1a*4 _6p+1m*4',
  ]),
  passage('treble-three', 60, 'i m a without a bass', ['3i+2m+1a*4 3i+2m+1a*4']),
  passage('afterbeats', 80, 'bass, chord, chord', [
    '_6p*2 3i+2m+1a*2 3i+2m+1a*2 _5p*2 3i+2m+1a*2 3i+2m+1a*2',
  ]),
];

const VOICES: readonly RightPassage[] = [
  passage('tune-over-bass', 76, 'p holds the bass, i m the tune', [
    '_5p+2m*2 2i*2 2m*2 2i*2',
    '_5p+2i*2 2m*2 2i*2 2m*2',
  ]),
  passage('tune-first-string', 76, 'on the first string', [
    '_6p+1m*2 1i*2 1m*2 1i*2',
    '_6p+1i*2 1m*2 1i*2 1m*2',
    '_6p+1a*2 1m*2 1a*2 1m*2',
    '_6p+1m*2 1a*2 1m*2 1a*2',
  ]),
  passage('bass-line', 80, 'p alone', ['_6p*2 _6p*2 _5p*2 _5p*2 _4p*2 _4p*2']),
  passage(
    'bass-scale',
    92,
    'p on the way up',
    ['_6p _6p _5p _5p _5p _4p _4p _4p'].map((row) => row.replace(/p/g, 'p*2')),
  ),
  passage('bass-quick', 60, 'p again and again', ['_6p*2 _6p*2 _6p*2 _6p*2']),
  passage('tune-and-afterbeat', 80, 'the tune by a, the afterbeat by i or m', [
    '_5p+1a*2 3i*2 1a*2 3i*2',
    '_5p+1a*2 3i*2 1m*2 3i*2',
    '_5p+1m*2 3i*2 1m*2 3i*2',
  ]),
  passage(
    'inner-pulse',
    80,
    'inner notes by i',
    [
      '_5p+1a*2 3i 3i _5p+1a*2 3i 3i',
      '_5p+1a*2 3i 3m _5p+1a*2 3i 3m',
      '_5p+1a*2 3m 3i _5p+1a*2 3m 3i',
      '_5p+1a*2 3i 3m _5p+1a*2 3m 3i',
      '_5p+1m*2 3i 3i _5p+1m*2 3i 3i',
    ].map((row) => row.replace(/3(.) 3(.)/g, '3$1*2 3$2*2')),
  ),
  passage('thirds', 72, 'two at a time: i m', [
    '3i+2m*2 3i+2m*2 2i+1m*2 2i+1m*2',
    '3i+2m*2 3i+2m*2 2m+1a*2 2m+1a*2',
  ]),
  passage(
    'sixths',
    72,
    'a string between: i a, or i m',
    ['3i+1a*2 3i+1a*2 3i+1a*2', '4i+2m*2'].slice(0, 1).concat(['3i+1m*2 3i+1m*2 3i+1m*2']),
  ),
  passage('octaves', 84, 'p and m, p and i', [
    '_5p+3i*2 _5p+3m*2 _5p+3i*2 _5p+3m*2',
    '_5p+3i*2 _5p+3i*2 _5p+3i*2 _5p+3i*2',
    '_5p+3m*2 _5p+3i*2 _5p+3m*2 _5p+3i*2',
  ]),
];

const TREMOLO: readonly RightPassage[] = [
  passage('pami', 120, 'as chosen', ['_5p 1a 1m 1i _4p 1a 1m 1i _5p 1a 1m 1i'], { tremolo: 'pami' }),
  passage('pima', 120, 'as chosen', ['_5p 1i 1m 1a _4p 1i 1m 1a _5p 1i 1m 1a'], { tremolo: 'pima' }),
  passage('pmim', 110, 'as chosen', ['_5p 1m 1i 1m _4p 1m 1i 1m _5p 1m 1i 1m'], { tremolo: 'pmim' }),
  passage('free', 120, 'any order without a finger twice in a row', [
    '_5p 1a 1m 1i _4p 1a 1m 1i',
    '_5p 1i 1m 1a _4p 1i 1m 1a',
    '_5p 1m 1i 1m _4p 1m 1i 1m',
    '_5p 1a 1i 1m _4p 1a 1i 1m',
    '_5p 1i 1m 1i _4p 1m 1i 1m',
    '_5p 1m 1i 1m _4p 1i 1m 1i',
    '_5p 1i 1m 1i _4p 1i 1m 1i',
    '_5p 1a 1m 1a _4p 1a 1m 1a',
    '_5p 1m 1a 1m _4p 1m 1a 1m',
  ]),
  passage('second-string', 110, 'as chosen', ['_6p 2a 2m 2i _4p 2a 2m 2i _5p 2a 2m 2i'], { tremolo: 'pami' }),
  passage('short', 100, 'as chosen', ['_5p 1m 1i _5p 1m 1i _4p 1m 1i'], { tremolo: 'pmi' }),
];

const SCALE_UP = '5 4 4 3 3 2 2 1';
const SCALE_DOWN = '1 1 2 2 3 3 4 4';
const SCHOOLS: readonly RightPassage[] = [
  passage('im-up', 96, 'crossings are trained', orBassByThumb(turns(SCALE_UP, 'im', 'mi')), {
    school: 'strict-im',
  }),
  passage('im-down', 96, 'crossings are trained', turns(SCALE_DOWN, 'im', 'mi'), { school: 'strict-im' }),
  passage('im-skips', 84, 'even over a string', turns('3 1 3 1 2 3 2 1', 'im', 'mi'), {
    school: 'strict-im',
  }),
  passage('ma-up', 90, 'm and a', orBassByThumb(turns(SCALE_UP, 'ma', 'am')), { school: 'strict-ma' }),
  passage('ma-down', 90, 'm and a', turns(SCALE_DOWN, 'ma', 'am'), { school: 'strict-ma' }),
  passage('ia-down', 84, 'i and a', turns(SCALE_DOWN, 'ia', 'ai'), { school: 'strict-ia' }),
  passage('ia-up', 84, 'i and a', orBassByThumb(turns(SCALE_UP, 'ia', 'ai')), { school: 'strict-ia' }),
  passage('ami-down', 104, 'a m i without end', turns(SCALE_DOWN, 'ami', 'mia', 'iam'), {
    school: 'three-finger',
  }),
  passage('ami-up', 104, 'a m i without end', orBassByThumb(turns(SCALE_UP, 'ami', 'mia', 'iam')), {
    school: 'three-finger',
  }),
  passage('ami-one-string', 112, 'a m i on one string', turns('1 1 1 1 1 1 1 1 1', 'ami', 'mia', 'iam'), {
    school: 'three-finger',
  }),
  passage('free-triad', 92, 'p p i m a', ['5p 4p 3i 2m 1a'], { school: 'crossing-free' }),
  passage('free-triad-down', 92, 'a m i p p', ['1a 2m 3i 4p 5p'], { school: 'crossing-free' }),
  passage(
    'free-two-a-string',
    88,
    'fingers change so that nothing crosses',
    ['3m 3i 2m 2i 1a 1m', '3i 3m 2m 2i 1a 1m', '3m 3i 2m 2i 1m 1a', '3m 3i 2m 2i 1m 1i'].concat([
      '3m 3i 2a 2m 1a 1m',
      '3m 3i 2a 2m 1m 1a',
      '3m 3i 2m 2a 1m 1a',
    ]),
    { school: 'crossing-free' },
  ),
  passage('stations-broken', 80, 'each finger its string', ['_5p 3i 2m 3i 1a 2m 3i 2m'], {
    school: 'stations',
  }),
  passage(
    'stations-again',
    66,
    'even twice in a row',
    ['_5p 3i 3i 2m 2m 1a 1a 2m'].map((row) => row.replace(/(\d[ima])/g, '$1*2')),
    { school: 'stations' },
  ),
  passage('stations-leap', 84, 'i and a keep theirs', ['3i 1a 3i 1a 2m 1a 2m 3i'], { school: 'stations' }),
  passage('pick-one-string', 100, 'down and up', turns('2 2 2 2 2 2 2 2', 'du'), { school: 'plectrum' }),
  passage(
    'pick-sweep',
    72,
    'down over neighbours',
    ['5d 4d 3d 2d'].map((row) => row),
    { school: 'plectrum' },
  ),
  passage('pick-two-strings', 88, 'down and up, outside the strings', turns('2 2 1 1 2 2 1 1', 'du'), {
    school: 'plectrum',
  }),
];

const MOVES: readonly RightPassage[] = [
  passage('set-up', 76, 'the set moves as one', ['_5p 4i 3m 2a _5p 3i 2m 1a'], { texture: 'brokenChord' }),
  passage('two-string-figure', 88, 'i m over two strings', ['3i 2m 3i 2m 2i 1m 2i 1m'], { texture: 'line' }),
  passage('over-p', 84, 'fingers are compared across p', ['3i _5p 2m _5p 1a _5p 2m _5p']),
  passage('bass-and-top', 84, 'far apart', [
    '_6p 1m _6p 1i _6p 1m _6p 1i',
    '_6p 1i _6p 1m _6p 1i _6p 1m',
    '_6p 1m _6p 1m _6p 1m _6p 1m',
    '_6p 1a _6p 1m _6p 1a _6p 1m',
    '_6p 1a _6p 1a _6p 1a _6p 1a',
    '_6p 1m _6p 1a _6p 1m _6p 1a',
  ]),
  passage(
    'downbeat',
    92,
    'a must be free for the chord',
    ['2m 2i 2m 2i _5p+3i+2m+1a*4', '2i 2m 2i 2m _5p+3i+2m+1a*4', '1m 1i 1m 1i _5p+3i+2m+1a*4'].slice(0, 2),
  ),
  passage(
    'scale-to-bass',
    84,
    'the lowest by p',
    [
      '2m 2i 3m 3i _4p _5p',
      '2i 2m 3i 3m _4p _5p',
      '2m 2i 3i 3m _4p _5p',
      '2a 2m 3i 3m _4p _5p',
      '2m 2i 3m 3i 4p 5p',
    ].slice(0, 4),
  ),
];

export const RIGHT_PASSAGES: Readonly<Record<string, readonly RightPassage[]>> = {
  arpeggios: ARPEGGIOS,
  lines: LINES,
  chords: CHORDS,
  voices: VOICES,
  tremolo: TREMOLO,
  schools: SCHOOLS,
  moves: MOVES,
};
