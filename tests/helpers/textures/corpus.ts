/**
 * Invented passages with the texture of every note, by construction: what a teacher would call them. Written after the
 * rules of reading, and not used to write them. Onsets and lengths in eighths, as in `TestNote`.
 */
import type { Texture } from '../../../src/core/figures/texture';
import type { TestNote } from '../music';

export interface TexturedNote extends TestNote {
  readonly texture: Texture;
}

export interface TexturedPassage {
  readonly name: string;
  /** Quarters a minute. */
  readonly tempo: number;
  readonly notes: readonly TexturedNote[];
}

const MAJOR = [0, 2, 4, 5, 7, 9, 11];
const MINOR = [0, 2, 3, 5, 7, 8, 11];

/** The pitch of a degree of a scale, 0 for its first; below 0 and above 6 in other octaves. */
const pitch = (tonic: number, scale: readonly number[], degree: number): number =>
  tonic + 12 * Math.floor(degree / 7) + scale[((degree % 7) + 7) % 7]!;

/** Notes one after the other from `at` on. */
function row(
  texture: Texture,
  midis: readonly number[],
  { at = 0, each = 1, voice = 1 }: { at?: number; each?: number; voice?: number } = {},
): TexturedNote[] {
  return midis.map((midi, k) => ({ midi, onset: at + k * each, length: each, voice, texture }));
}

function chordAt(
  texture: Texture,
  midis: readonly number[],
  at: number,
  length: number,
  voice = 1,
): TexturedNote[] {
  return midis.map((midi) => ({ midi, onset: at, length, voice, texture }));
}

const degrees = (tonic: number, scale: readonly number[], list: readonly number[]) =>
  list.map((degree) => pitch(tonic, scale, degree));

const climb = (from: number, to: number) =>
  Array.from({ length: Math.abs(to - from) + 1 }, (_, k) => from + (to > from ? k : -k));

const passage = (name: string, tempo: number, ...parts: readonly TexturedNote[][]): TexturedPassage => ({
  name,
  tempo,
  notes: parts.flat(),
});

const LINES: readonly TexturedPassage[] = [
  passage('scale of E flat', 120, row('line', degrees(51, MAJOR, [...climb(0, 10), ...climb(9, 0)]))),
  passage('minor scale down', 132, row('line', degrees(57, MINOR, [...climb(9, 0), ...climb(1, 5)]))),
  passage('turns', 126, row('line', degrees(60, MAJOR, [0, 1, 0, -1, 0, 2, 3, 2, 1, 2, 4, 5, 4, 3, 4, 2]))),
  passage(
    'steps with a leap of a fourth',
    120,
    row('line', degrees(62, MAJOR, [0, 1, 2, 3, 0, 1, 2, 1, 4, 3, 2, 1, 0, 1, -1, 0])),
  ),
  passage(
    'groups of three',
    112,
    row('line', degrees(55, MAJOR, [0, 1, 2, 1, 2, 3, 2, 3, 4, 3, 4, 5, 4, 3, 2, 1])),
  ),
  passage('chromatic', 138, row('line', [64, 65, 66, 67, 68, 69, 70, 71, 70, 69, 68, 67, 66, 65, 64, 63])),
  passage(
    'over held basses',
    120,
    row('line', degrees(64, MINOR, [0, 1, 2, 3, 4, 3, 2, 1, 0, 2, 1, 0, -1, 0, 1, 0])),
    row('line', [40, 45, 47, 40], { each: 4, voice: 2 }),
  ),
  passage(
    'repeated notes in a line',
    140,
    row('line', degrees(60, MAJOR, [0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 3, 3, 2, 2, 1, 0])),
  ),
  passage(
    'in low thirds of the neck',
    116,
    row('line', degrees(43, MAJOR, [...climb(0, 6), ...climb(5, 0), 1, 0])),
  ),
];

/** Chords of four or five strings, from the bass up. */
const VOICINGS: readonly (readonly number[])[] = [
  [45, 57, 60, 64],
  [40, 56, 59, 64],
  [48, 55, 60, 64],
  [50, 57, 62, 65],
  [43, 55, 59, 67],
  [47, 57, 63, 66],
  [41, 57, 60, 65],
  [45, 57, 61, 64],
];

/** Each chord broken in an order of its notes; the bass in a voice of its own when `apart`. */
function broken(chords: readonly number[], order: readonly number[], each = 1, apart = true): TexturedNote[] {
  return chords.flatMap((chord, n) =>
    order.map((which, k): TexturedNote => ({
      midi: VOICINGS[chord]![which]!,
      onset: (n * order.length + k) * each,
      length: apart && which === 0 ? order.length * each : each,
      voice: apart && which === 0 ? 2 : 1,
      texture: 'brokenChord',
    })),
  );
}

const BROKEN: readonly TexturedPassage[] = [
  passage('up', 120, broken([0, 1, 2, 3], [0, 1, 2, 3])),
  passage('down', 132, broken([4, 2, 5, 0], [0, 3, 2, 1])),
  passage('up and down', 108, broken([0, 3, 1, 0], [0, 1, 2, 3, 2, 1])),
  passage('zigzag', 100, broken([2, 0, 3, 4], [0, 2, 1, 3])),
  passage('to and fro', 112, broken([6, 7, 2, 2], [0, 1, 3, 1, 2, 1])),
  passage('eight notes', 144, broken([0, 5, 1], [0, 1, 2, 1, 3, 1, 2, 1])),
  passage('five notes', 120, broken([3, 4, 2, 0], [0, 1, 2, 3, 2])),
  passage('slow', 66, broken([0, 3, 1, 0], [0, 1, 2, 3, 2, 1])),
  passage('one voice', 116, broken([0, 4, 1, 0], [0, 1, 2, 3, 2, 1], 1, false)),
  passage('one voice, up', 126, broken([2, 6, 4, 2], [0, 1, 2, 3], 1, false)),
  passage('without a bass', 120, row('brokenChord', [57, 61, 64, 57, 61, 64, 59, 62, 68, 59, 62, 68])),
  passage(
    'inner accompaniment below a tune',
    96,
    row('brokenChord', [48, 55, 60, 55, 48, 55, 60, 55, 43, 55, 59, 55, 48, 55, 60, 55], { voice: 2 }),
    row('slowMelody', [67, 65, 67, 64], { each: 4 }),
  ),
];

function tremolo(pitches: readonly number[], basses: readonly number[], times: number): TexturedNote[] {
  return basses.flatMap((bass, n) => [
    { midi: bass, onset: n * (times + 1), length: times + 1, voice: 2, texture: 'tremolo' as const },
    ...row('tremolo', Array<number>(times).fill(pitches[n % pitches.length]!), { at: n * (times + 1) + 1 }),
  ]);
}

const TREMOLOS: readonly TexturedPassage[] = [
  passage('three times', 200, tremolo([64], [45, 52, 57, 52, 45, 52], 3)),
  passage('three times, other pitches', 220, tremolo([67, 67, 66, 66], [40, 47, 45, 50], 3)),
  passage('twice', 180, tremolo([65], [45, 50, 53, 50, 45, 50], 2)),
  passage('on the second string', 210, tremolo([60, 60, 62, 62], [45, 50, 43, 47], 3)),
  passage('four times', 260, tremolo([64], [40, 47, 52, 47], 4)),
  passage('one voice', 210, row('tremolo', [45, 64, 64, 64, 52, 64, 64, 64, 50, 65, 65, 65, 45, 64, 64, 64])),
];

const hymn = (chords: readonly number[], length: number): TexturedNote[] =>
  chords.flatMap((chord, n) => [
    ...chordAt('chords', VOICINGS[chord]!.slice(1), n * length, length),
    ...chordAt('chords', VOICINGS[chord]!.slice(0, 1), n * length, length, 2),
  ]);

const CHORDS: readonly TexturedPassage[] = [
  passage('hymn', 80, hymn([0, 3, 1, 0, 4, 2], 2)),
  passage(
    'one voice',
    90,
    [0, 4, 1, 0, 2].flatMap((chord, n) => chordAt('chords', VOICINGS[chord]!, n * 4, 4)),
  ),
  passage(
    'repeated',
    120,
    [0, 0, 0, 1, 1, 1, 0, 0].flatMap((chord, n) => [
      ...chordAt('chords', VOICINGS[chord]!.slice(1), n, 1),
      ...chordAt('chords', VOICINGS[chord]!.slice(0, 1), n, 1, 2),
    ]),
  ),
  passage(
    'three notes',
    100,
    [0, 2, 4, 2, 0, 1].flatMap((chord, n) => chordAt('chords', VOICINGS[chord]!.slice(1), n * 2, 2)),
  ),
];

function afterbeats(chords: readonly number[], beats: number, top = 3): TexturedNote[] {
  return chords.flatMap((chord, n) => [
    {
      midi: VOICINGS[chord]![0]!,
      onset: n * beats * 2,
      length: beats * 2,
      voice: 2,
      texture: 'afterbeats' as const,
    },
    ...Array.from({ length: beats - 1 }, (_, k) =>
      chordAt('afterbeats', VOICINGS[chord]!.slice(4 - top), (n * beats + k + 1) * 2, 2),
    ).flat(),
  ]);
}

const AFTERBEATS: readonly TexturedPassage[] = [
  passage('waltz', 132, afterbeats([0, 1, 3, 0], 3)),
  passage('polka', 112, afterbeats([2, 4, 2, 6, 4, 2], 2)),
  passage('two notes', 120, afterbeats([0, 3, 4, 2], 3, 2)),
  passage('four beats', 104, afterbeats([7, 3, 1, 7], 4)),
  passage('quick', 176, afterbeats([0, 1, 0, 3, 1, 0], 2)),
  passage(
    'below a tune',
    126,
    [0, 3, 1, 0].flatMap((chord, n) => [
      ...chordAt('afterbeats', [VOICINGS[chord]![0]!], n * 6, 2, 2),
      ...chordAt('afterbeats', VOICINGS[chord]!.slice(1, 3), n * 6 + 2, 2, 2),
      ...chordAt('afterbeats', VOICINGS[chord]!.slice(1, 3), n * 6 + 4, 2, 2),
    ]),
    row('slowMelody', [76, 77, 74, 76], { each: 6 }),
  ),
];

/** A moving voice and one pitch by turns: both are the pedal's texture. */
function pedal(moving: readonly number[], still: number, stillAbove = true): TexturedNote[] {
  return moving.flatMap((midi, k) => [
    { midi, onset: 2 * k, length: 1, voice: stillAbove ? 2 : 1, texture: 'pedal' as const },
    { midi: still, onset: 2 * k + 1, length: 1, voice: stillAbove ? 1 : 2, texture: 'pedal' as const },
  ]);
}

const PEDALS: readonly TexturedPassage[] = [
  passage('open first string', 144, pedal(degrees(52, MINOR, [0, 1, 2, 3, 4, 3, 2, 1, 0, 1]), 64)),
  passage('open third string', 132, pedal(degrees(45, MINOR, [0, 1, 2, 3, 2, 1, 0, -1, 0]), 55)),
  passage('open second string', 126, pedal(degrees(47, MAJOR, [0, 1, 2, 1, 2, 3, 2, 1, 0]), 59)),
  passage('slower', 92, pedal(degrees(50, MAJOR, [0, 1, 2, 3, 4, 3, 2, 1, 0]), 64)),
];

function parallel(
  tonic: number,
  scale: readonly number[],
  list: readonly number[],
  above: number,
  each = 1,
): TexturedNote[] {
  return list.flatMap((degree, k) =>
    chordAt('parallels', [pitch(tonic, scale, degree), pitch(tonic, scale, degree + above)], k * each, each),
  );
}

const PARALLELS: readonly TexturedPassage[] = [
  passage('thirds', 96, parallel(60, MAJOR, [0, 1, 2, 3, 4, 3, 2, 1, 0], 2, 2)),
  passage('sixths', 88, parallel(55, MAJOR, [0, 1, 2, 3, 4, 3, 2, 1, 0], 5, 2)),
  passage('thirds in minor', 120, parallel(57, MINOR, [0, 1, 2, 3, 2, 1, 0, 1], 2, 1)),
  passage(
    'triads',
    84,
    [0, 1, 2, 3, 4, 3, 2, 1].flatMap((degree, k) =>
      chordAt('parallels', degrees(57, MAJOR, [degree, degree + 2, degree + 4]), k * 2, 2),
    ),
  ),
  passage('octaves', 92, parallel(52, MAJOR, [0, 1, 2, 3, 4, 3, 2, 1, 0], 7, 2)),
];

const TUNES: readonly TexturedPassage[] = [
  passage('alone', 56, row('slowMelody', degrees(64, MINOR, [0, 1, 2, 4, 3, 2, 1, 0, -1, 0]), { each: 2 })),
  passage(
    'with leaps',
    60,
    row('slowMelody', degrees(60, MAJOR, [0, 2, 4, 3, 1, 2, 5, 4, 2, 0]), { each: 2 }),
  ),
  passage(
    'over basses',
    54,
    row('slowMelody', degrees(67, MAJOR, [0, 1, 2, 1, 0, -1, -2, -1, 0, 0]), { each: 2 }),
    row('slowMelody', [43, 50, 43, 50, 43], { each: 4, voice: 2 }),
  ),
  passage('low', 58, row('slowMelody', degrees(45, MINOR, [0, 1, 2, 3, 2, 1, 0, -1, 0]), { each: 2 })),
  passage('dotted', 52, [
    ...row('slowMelody', degrees(62, MAJOR, [0, 2, 3, 1]), { each: 3 }),
    ...row('slowMelody', degrees(62, MAJOR, [2, 1, 0, 1]), { at: 12, each: 2 }),
  ]),
];

/** Textures that change, border and all. */
const CHANGES: readonly TexturedPassage[] = [
  passage(
    'arpeggio, then a scale',
    116,
    broken([0, 1], [0, 1, 2, 3, 2, 1]),
    row('line', degrees(57, MINOR, [7, 6, 5, 4, 3, 2, 1, 0]), { at: 12 }),
  ),
  passage(
    'scale, then an arpeggio',
    120,
    row('line', degrees(60, MAJOR, [0, 1, 2, 3, 4, 5, 6, 7])),
    broken([2, 4, 2], [0, 1, 2, 3, 2, 1]).map((note) => ({ ...note, onset: note.onset + 8 })),
  ),
  passage(
    'thirds, then a run',
    104,
    parallel(60, MAJOR, [0, 1, 2, 3, 2, 1], 2, 2),
    row('line', degrees(60, MAJOR, [9, 8, 7, 6, 5, 4, 3, 2, 1, 0, -1, 0]), { at: 12 }),
  ),
  passage(
    'run, then chords',
    126,
    row('line', degrees(57, MINOR, [0, 1, 2, 3, 4, 5, 6, 7])),
    hymn([0, 1, 0, 0], 2).map((note) => ({ ...note, onset: note.onset + 8 })),
  ),
  passage(
    'tremolo, then chords',
    200,
    tremolo([64], [45, 52, 45, 52], 3),
    hymn([0, 1, 0, 0], 4).map((note) => ({ ...note, onset: note.onset + 16 })),
  ),
  passage(
    'chords, then an arpeggio',
    108,
    hymn([0, 3, 1, 0], 2),
    broken([0, 1, 0], [0, 1, 2, 3, 2, 1]).map((note) => ({ ...note, onset: note.onset + 8 })),
  ),
  passage(
    'waltz with a run',
    138,
    afterbeats([0, 1, 3], 3),
    row('line', degrees(57, MINOR, [7, 6, 5, 4, 3, 2, 1, 0, 1, 2, 3, 4]), { at: 18 }),
    row('line', [40, 45], { at: 18, each: 6, voice: 2 }),
  ),
];

/** The same a tone higher and a third lower: rules must not hang on a key. */
const moved = (passages: readonly TexturedPassage[], semitones: number): readonly TexturedPassage[] =>
  passages.map((one) => ({
    ...one,
    name: `${one.name}, ${semitones} semitones off`,
    notes: one.notes.map((note) => ({ ...note, midi: note.midi + semitones })),
  }));

const ONCE = [
  ...LINES,
  ...BROKEN,
  ...TREMOLOS,
  ...CHORDS,
  ...AFTERBEATS,
  ...PEDALS,
  ...PARALLELS,
  ...TUNES,
  ...CHANGES,
];

export const TEXTURED: readonly TexturedPassage[] = [
  ...ONCE,
  ...moved(BROKEN.slice(0, 6), 2),
  ...moved(LINES.slice(0, 4), 3),
  ...moved(CHANGES.slice(0, 4), 1),
];
