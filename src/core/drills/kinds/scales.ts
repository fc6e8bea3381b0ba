import { openMidi, STANDARD_TUNING, STRINGS } from '../../instrument/tuning';
import { fewestCrossings } from '../crossings';
import type { DrillEvent, DrillKind } from '../drill';
import { ACCENTS, PICK, RHYTHM } from '../treatments';
import {
  ALTERNATIONS,
  andBack,
  type FrettedPlace,
  HEALTH,
  played,
  single,
  stopped,
  turn,
} from '../vocabulary';

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
  steps: 'up to the last tonic and back',
  passes: [
    ['the crossings alone', 4],
    ['in dotted rhythms, both ways', 4],
    ['even and in time', 2],
  ],
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
        ['across', 'three notes to a string'],
        ['string', 'along one string'],
      ],
    },
    ALTERNATIONS,
    {
      id: 'begins',
      label: 'First stroke',
      values: [
        ['named', 'as named'],
        ['solved', 'the one with the fewest crossings'],
      ],
    },
    {
      id: 'slurs',
      label: 'Slurs',
      values: [
        ['none', 'none'],
        ['pairs', 'two by two where the string stays'],
      ],
    },
    RHYTHM,
    ACCENTS,
    PICK,
  ],
  make: ({ scale, tonic, octaves, way, letters, begins, slurs }) => {
    const [, pitchClass, major, minor] = TONICS.find(([name]) => name === tonic)!;
    const steps = SCALES[scale!]!;
    const count = (way === 'string' ? 1 : Number(octaves)) * steps.length + 1;
    const degrees = Array.from(
      { length: count },
      (_, k) => 12 * Math.floor(k / steps.length) + steps[k % steps.length]!,
    );
    const places = andBack(placesFor(way!, pitchClass, degrees));
    const order = begins === 'solved' ? fewestCrossings(places, letters!) : letters!;
    return {
      voices: [slurs === 'pairs' ? slurred(places, order) : played(places, order)],
      fifths: /minor/i.test(scale!) ? minor : scale === 'chromatic' ? 0 : major,
      metre: { beats: 4, beatType: 4 },
    };
  },
};

function placesFor(way: string, pitchClass: number, degrees: readonly number[]): readonly FrettedPlace[] {
  if (way === 'string') return alongString(pitchClass, degrees);
  return (way === 'across' ? acrossStrings(pitchClass, degrees) : null) ?? inPosition(pitchClass, degrees);
}

/** The second of two on a string is slurred; the letters go on from stroke to stroke. */
function slurred(places: readonly FrettedPlace[], letters: string): readonly DrillEvent[] {
  const events: DrillEvent[] = [];
  let stroke = 0;
  places.forEach(({ string, fret, finger }, k) => {
    const before = places[k - 1];
    const isSecond = before?.string === string && before.finger !== finger && !events.at(-1)?.slurred;
    events.push(
      isSecond
        ? single(stopped(string, fret, finger, null), 1, true)
        : single(stopped(string, fret, finger, turn(letters, stroke++))),
    );
  });
  return events;
}

/** Fingers of three notes on a string by how far the second and third lie from the first. Common practice. */
const THREES: Readonly<Record<string, readonly number[]>> = {
  '1 2': [1, 2, 3],
  '1 3': [1, 2, 4],
  '2 3': [1, 3, 4],
  '2 4': [1, 2, 4],
};
/** Below it the stretch of four frets is too wide for a drill. */
const LOWEST_ACROSS = 5;

/** Null where three of them do not lie under a hand. */
function acrossStrings(pitchClass: number, degrees: readonly number[]): readonly FrettedPlace[] | null {
  const start = Array.from({ length: HIGHEST - LOWEST_ACROSS }, (_, k) => LOWEST_ACROSS + k).find(
    (fret) => midiOf(6, fret) % 12 === pitchClass,
  );
  if (start === undefined) return null;
  const places: FrettedPlace[] = [];
  for (let k = 0; k < degrees.length; k += 3) {
    const string = 6 - k / 3;
    const frets = degrees.slice(k, k + 3).map((degree) => midiOf(6, start) + degree - midiOf(string, 0));
    const fingers =
      THREES[`${(frets[1] ?? frets[0]! + 1) - frets[0]!} ${(frets[2] ?? frets[0]! + 3) - frets[0]!}`];
    if (string < 1 || !fingers || frets.some((fret) => fret < 1 || fret > HIGHEST)) return null;
    frets.forEach((fret, n) => places.push({ string, fret, finger: fingers[n]! }));
  }
  return places;
}

const midiOf = (string: number, fret: number) => openMidi(STANDARD_TUNING, string) + fret;

/** From the tonic whose scale needs the fewest stretches out of the hand's four frets; of several the lowest. */
function inPosition(pitchClass: number, degrees: readonly number[]): readonly FrettedPlace[] {
  const tried = [6, 5]
    .flatMap((string) => Array.from({ length: HIGHEST }, (_, fret) => ({ string, fret })))
    .filter(({ string, fret }) => fret > 0 && midiOf(string, fret) % 12 === pitchClass)
    .map((start) => fromStart(start, degrees))
    .filter((walk) => walk !== null);
  const fewest = Math.min(...tried.map(stretchesOf));
  const best = tried.find((walk) => stretchesOf(walk) === fewest);
  return best ? fingered(best) : alongString(pitchClass, degrees);
}

/** A note before it has its finger, and where the hand is. */
interface Step {
  readonly string: number;
  readonly fret: number;
  readonly position: number;
}

const isUnderHand = ({ fret, position }: Step): boolean => fret >= position && fret < position + SPAN;
const stretchesOf = (steps: readonly Step[]): number => steps.filter((step) => !isUnderHand(step)).length;

/** Null where the strings or the neck end. */
function fromStart(
  start: { readonly string: number; readonly fret: number },
  degrees: readonly number[],
): readonly Step[] | null {
  const tonic = midiOf(start.string, start.fret);
  // The second finger on the tonic leaves a fret below it for the hand, where there is one.
  let position = Math.max(1, start.fret - 1);
  let { string } = start;
  const steps: Step[] = [];
  for (const degree of degrees) {
    const fretOn = (one: number) => tonic + degree - midiOf(one, 0);
    // To the next string as soon as 1 reaches the note there, a fret further back at most.
    if (fretOn(string) >= position + SPAN && string > 1 && fretOn(string - 1) >= position - 1) string--;
    const fret = fretOn(string);
    // The first string has no next one, and a note two frets out of the hand takes the hand along.
    if (fret > position + SPAN || (string === 1 && fret >= position + SPAN)) position = fret;
    if (fret < 1 || fret > HIGHEST) return null;
    steps.push({ string, fret, position });
  }
  return steps;
}

/** Notes of one string and place of the hand share the fingers: by the position, or from 1 where they leave it. */
function fingered(steps: readonly Step[]): readonly FrettedPlace[] {
  return steps.map((step) => {
    const group = steps.filter(
      ({ string, position }) => string === step.string && position === step.position,
    );
    if (group.every(isUnderHand))
      return { string: step.string, fret: step.fret, finger: step.fret - step.position + 1 };
    const lowest = Math.min(...group.map(({ fret }) => fret));
    const offsets = [...new Set(group.map(({ fret }) => fret - lowest))].sort((a, b) => a - b);
    return { string: step.string, fret: step.fret, finger: stretchedFinger(step.fret - lowest, offsets) };
  });
}

/** Four frets by one finger each; over five the little finger takes the last, and the others stay in order. */
function stretchedFinger(offset: number, offsets: readonly number[]): number {
  if (offsets.at(-1)! < SPAN) return offset + 1;
  return offset === SPAN ? SPAN : Math.min(offset + 1, 1 + offsets.indexOf(offset));
}

/** Three notes under the hand, then a shift. */
function alongString(pitchClass: number, degrees: readonly number[]): readonly FrettedPlace[] {
  const string = STRINGS.find((one) => {
    const fret = (pitchClass - (midiOf(one, 0) % 12) + 12) % 12;
    return fret + degrees.at(-1)! <= HIGHEST;
  });
  // Two octaves are too long for a string: one is played.
  if (string === undefined)
    return alongString(
      pitchClass,
      degrees.filter((degree) => degree <= 12),
    );
  const first = (pitchClass - (midiOf(string, 0) % 12) + 12) % 12;
  let position = Math.max(1, first);
  return degrees.map((degree) => {
    const fret = first + degree;
    if (fret === 0) return { string, fret, finger: 0 };
    if (fret > position + SPAN - 1) position = fret;
    return { string, fret, finger: fret - position + 1 };
  });
}
