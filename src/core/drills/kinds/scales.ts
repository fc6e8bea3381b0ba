import { openMidi, STANDARD_TUNING, STRINGS } from '../../instrument/tuning';
import type { DrillKind } from '../drill';
import { ALTERNATIONS, andBack, type FrettedPlace, HEALTH, played } from '../vocabulary';

/** Semitones above the tonic. Source: common music theory. */
export const SCALES: Readonly<Record<string, readonly number[]>> = {
  major: [0, 2, 4, 5, 7, 9, 11],
  naturalMinor: [0, 2, 3, 5, 7, 8, 10],
  harmonicMinor: [0, 2, 3, 5, 7, 8, 11],
  melodicMinor: [0, 2, 3, 5, 7, 9, 11],
  chromatic: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11],
};

/** Tonics with the sharps of their major and minor key signatures. */
export const TONICS: readonly (readonly [name: string, pitchClass: number, major: number, minor: number])[] =
  [
    ['C', 0, 0, -3],
    ['G', 7, 1, -2],
    ['D', 2, 2, -1],
    ['A', 9, 3, 0],
    ['E', 4, 4, 1],
    ['B', 11, 5, 2],
    ['F♯', 6, 6, 3],
    ['F', 5, -1, -4],
    ['B♭', 10, -2, -5],
    ['E♭', 3, -3, -6],
    ['A♭', 8, -4, -7],
    ['C♯', 1, 7, 4],
  ];

/** A string is left for the next one so that four fingers do. */
const SPAN = 4;
const HIGHEST = 16;

export const SCALE_DRILL: DrillKind = {
  id: 'scales',
  title: 'Scales',
  trains: 'one position for the run, letters that alternate whatever the crossings',
  watch: [
    'the hand stays over its four frets; the finger is the fret less the position plus one',
    'the right hand moves across with the arm, so that each string is met at the same angle',
    'look at the next string before its first note',
  ],
  passes: ['the crossings alone', 'in dotted rhythms, both ways', 'even and in time'],
  caution: HEALTH.speed,
  ladder: [60, 72, 84, 96, 112, 126],
  parameters: [
    {
      id: 'scale',
      label: 'Scale',
      values: [
        ['major', 'major'],
        ['naturalMinor', 'natural minor'],
        ['harmonicMinor', 'harmonic minor'],
        ['melodicMinor', 'melodic minor'],
        ['chromatic', 'chromatic'],
      ],
    },
    { id: 'tonic', label: 'On', values: TONICS.map(([name]) => [name, name] as const) },
    {
      id: 'octaves',
      label: 'Octaves',
      values: [
        ['2', 'two'],
        ['1', 'one'],
      ],
    },
    {
      id: 'way',
      label: 'Way',
      values: [
        ['position', 'in position'],
        ['string', 'along one string'],
      ],
    },
    ALTERNATIONS,
  ],
  make: ({ scale, tonic, octaves, way, letters }) => {
    const [, pitchClass, major, minor] = TONICS.find(([name]) => name === tonic)!;
    const steps = SCALES[scale!]!;
    const count = (way === 'string' ? 1 : Number(octaves)) * steps.length + 1;
    const degrees = Array.from(
      { length: count },
      (_, k) => 12 * Math.floor(k / steps.length) + steps[k % steps.length]!,
    );
    const places = way === 'string' ? alongString(pitchClass, degrees) : inPosition(pitchClass, degrees);
    return {
      voices: [played(andBack(places), letters!)],
      fifths: /minor/i.test(scale!) ? minor : scale === 'chromatic' ? 0 : major,
      metre: { beats: 4, beatType: 4 },
    };
  },
};

const midiOf = (string: number, fret: number) => openMidi(STANDARD_TUNING, string) + fret;

/** From the lowest tonic whose scale stays under the hand, one finger per fret; a step out of the hand is a stretch of 4. */
function inPosition(pitchClass: number, degrees: readonly number[]): readonly FrettedPlace[] {
  const starts = [6, 5].flatMap((string) =>
    Array.from({ length: HIGHEST }, (_, fret) => ({ string, fret })).filter(
      ({ fret }) => midiOf(string, fret) % 12 === pitchClass && fret > 0,
    ),
  );
  const tried = starts.map((start) => fromStart(start, degrees));
  return tried.find((places) => places !== null) ?? alongString(pitchClass, degrees);
}

/** Null where the strings or the neck end. */
function fromStart(
  start: { readonly string: number; readonly fret: number },
  degrees: readonly number[],
): readonly FrettedPlace[] | null {
  const tonic = midiOf(start.string, start.fret);
  // The second finger on the tonic leaves a fret below it for the hand, where there is one.
  let position = Math.max(1, start.fret - 1);
  let string = start.string;
  const places: FrettedPlace[] = [];
  for (const degree of degrees) {
    let fret = tonic + degree - midiOf(string, 0);
    while (fret > position + SPAN - 1 && string > 1) {
      string--;
      fret = tonic + degree - midiOf(string, 0);
    }
    // On the first string the hand goes along; the second has its strings a third apart, and the hand comes down a fret.
    if (fret > position + SPAN - 1) position = fret;
    if (fret < position) position = fret;
    if (fret < 1 || fret > HIGHEST) return null;
    places.push({ string, fret, finger: fret - position + 1 });
  }
  return places;
}

/** Three notes under the hand, then a shift. */
function alongString(pitchClass: number, degrees: readonly number[]): readonly FrettedPlace[] {
  const string = STRINGS.find((one) => {
    const fret = (pitchClass - (midiOf(one, 0) % 12) + 12) % 12;
    return fret + degrees.at(-1)! <= HIGHEST;
  })!;
  const first = (pitchClass - (midiOf(string, 0) % 12) + 12) % 12;
  let position = Math.max(1, first);
  return degrees.map((degree) => {
    const fret = first + degree;
    if (fret === 0) return { string, fret, finger: 0 };
    if (fret > position + SPAN - 1) position = fret;
    return { string, fret, finger: fret - position + 1 };
  });
}
