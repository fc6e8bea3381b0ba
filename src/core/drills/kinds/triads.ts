import type { DrillEvent, DrillKind, Part } from '../drill';
import { ACCENTS, RHYTHM } from '../treatments';
import { andBack, HEALTH } from '../vocabulary';
import { TONICS } from './scales';

/** Semitones above the root. Source: common music theory. */
const QUALITIES: Readonly<Record<string, readonly number[]>> = {
  major: [0, 4, 7],
  minor: [0, 3, 7],
  diminished: [0, 3, 6],
  augmented: [0, 4, 8],
};
/** The sixth string, open; and as high as a hand goes on the first without strain. */
const LOWEST = 40;
const HIGHEST = 79;
/** Three notes a third apart need three strings a fourth apart: below this they have none. */
const LOWEST_BLOCK = 45;

/** Source: handbook 9: each key has its own obstacle; both solutions of the right hand are trained. */
export const TRIADS: DrillKind = {
  id: 'triads',
  title: 'Triads',
  trains: 'broken triads over the neck, with the crossing accepted or avoided by the right hand',
  watch: [
    'where the key has an open string the hand moves on it, and nowhere else',
    'of the two solutions for the right hand neither is better: know both, and choose for each piece',
    'the shape is seen before its first note: three fingers know their places',
  ],
  steps: 'up and back; where both solutions are chosen, the first and then the second in full',
  passes: [
    ['as a block, three notes together', 4],
    ['finger by finger, slowly', 4],
    ['both solutions of the right hand, one after the other', 2],
  ],
  caution: HEALTH.stretch,
  ladder: [60, 72, 84, 96, 108],
  leaves: 'places',
  parameters: [
    { id: 'root', label: 'On', values: TONICS.map(([name]) => [name, name] as const) },
    {
      id: 'quality',
      label: 'Triad',
      values: [
        ['major', 'major'],
        ['minor', 'minor'],
        ['diminished', 'diminished'],
        ['augmented', 'augmented'],
      ],
    },
    {
      id: 'octaves',
      label: 'Octaves',
      values: [
        ['2', 'two'],
        ['1', 'one'],
        ['3', 'three'],
      ],
    },
    {
      id: 'inversion',
      label: 'From its',
      values: [
        ['0', 'root'],
        ['1', 'third'],
        ['2', 'fifth'],
      ],
    },
    {
      id: 'rightHand',
      label: 'Right hand',
      values: [
        ['both', 'both solutions, one after the other'],
        ['strict-im', 'i m in turn, crossings accepted'],
        ['crossing-free', 'crossings avoided, with a double thumb'],
      ],
    },
    {
      id: 'form',
      label: 'Played',
      values: [
        ['broken', 'note by note'],
        ['block', 'three together'],
      ],
    },
    RHYTHM,
    ACCENTS,
  ],
  make: ({ root, quality, octaves, inversion, rightHand, form }) => {
    const [, pitchClass, major, minor] = TONICS.find(([name]) => name === root)!;
    const lowest = form === 'block' ? LOWEST_BLOCK : LOWEST;
    const midis = tonesOf(pitchClass, QUALITIES[quality!]!, Number(octaves), Number(inversion), lowest);
    const row = andBack(form === 'block' ? blocksOf(midis) : midis.map((midi) => [midi]));
    const events = (rightHand === 'both' && form === 'broken' ? BOTH : [ONE]).flatMap((part) =>
      row.map((chord, k): DrillEvent => ({
        notes: chord.map((midi) => ({ midi, string: null, fret: null, finger: null, letter: null })),
        eighths: form === 'block' ? 2 : 1,
        ...(k === 0 && part && { begins: part }),
      })),
    );
    return {
      voices: [events],
      fifths: quality === 'minor' || quality === 'diminished' ? minor : major,
      metre: { beats: 3, beatType: 4 },
      ...(rightHand !== 'both' && { settings: { rightSchool: rightHand! } }),
    };
  },
};

/** The two right hands that are compared. */
const BOTH: readonly Part[] = [
  { words: 'i m in turn: crossings accepted', strokeSchool: 'strict-im' },
  { words: 'crossings avoided', strokeSchool: 'crossing-free' },
];
const ONE = null;

/** Three neighbours at a time, from each tone up. */
const blocksOf = (midis: readonly number[]) => midis.slice(0, -2).map((_, k) => midis.slice(k, k + 3));

/** From the lowest tone of that kind upwards, as far as the neck goes. */
function tonesOf(
  root: number,
  steps: readonly number[],
  octaves: number,
  inversion: number,
  lowest: number,
): readonly number[] {
  const first = steps[inversion]!;
  let bottom = lowest;
  while ((bottom - root - first + 144) % 12 !== 0) bottom++;
  const count = steps.length * octaves + 1;
  return Array.from({ length: count }, (_, k) => {
    const at = inversion + k;
    return bottom - first + 12 * Math.floor(at / steps.length) + steps[at % steps.length]!;
  }).filter((midi) => midi <= HIGHEST);
}
