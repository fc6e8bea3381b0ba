/** Extensions and contractions. Fingerings: common practice. */
import type { Passage } from '../passage';

export const STRETCHES: readonly Passage[] = [
  {
    id: 'f-sharp-to-a',
    bpm: 66,
    lower: '6/2-1*4',
    upper: '1/5-4*2 1/3-23*2',
    why: '4 extends by nothing, one finger a fret from II',
  },
  {
    id: 'extension-of-four',
    bpm: 126,
    upper: '1/1-1 1/3-23 1/5-4 1/3-23 1/1-1 1/0',
    why: '4 extends, the hand stays',
    or: [
      { upper: '1/1-1 1/3-1 1/5-34 1/3-1 1/1-1 1/0', why: '1 carries the hand there and back' },
      { upper: '1/1-1 1/3-2 1/5-4 1/3-2 1/1-1 1/0', why: 'opened between 1 and 2' },
    ],
  },
  {
    id: 'c-minor-third',
    bpm: 72,
    lower: '5/3-3*8',
    upper: '3/0*2 2/1-1*2 2/4-4*2 2/1-1*2',
    why: '4 beside the held 3',
  },
  {
    id: 'b-major',
    bpm: 60,
    upper: '5/2-1+4/4-2+3/4-3+2/4-4+1/2-1*4',
    why: 'three fingers squeezed into one fret',
    or: [{ upper: '6/7-1+5/9-3+4/9-4+3/8-2+2/7-1*4', why: 'the E shape at VII' }],
  },
  {
    id: 'g-minor-bass',
    bpm: 66,
    lower: '6/3-1*4',
    upper: '3/3-1*2 2/3-1*2',
    why: 'a barre at III',
    or: [{ lower: '6/3-2*4', upper: '3/3-3*2 2/3-4*2', why: 'three fingers on one fret' }],
  },
  {
    id: 'fifths-over-f',
    bpm: 66,
    lower: '6/1-1*8',
    upper: '5/3-3*2 4/3-4*2 3/2-2*2 4/3-4*2',
    why: 'the F shape without its barre',
  },
  {
    id: 'back-to-one',
    bpm: 92,
    upper: '2/5-4 2/3-2 2/2-1 2/1-1 2/0',
    why: '1 goes back by a fret',
    or: [
      { upper: '1/0 2/3-3 2/2-2 2/1-1 2/0', why: 'E open: first position' },
      { upper: '2/5-4 2/3-3 2/2-2 2/1-1 2/0', why: '4 extended' },
      { upper: '2/5-4 2/3-23 2/2-12 2/1-1 2/0', why: 'extended or gone back' },
    ],
  },
  {
    id: 'e-flat-over-g',
    bpm: 66,
    lower: '6/3-2*4',
    upper: '4/1-1*2 2/4-4*2',
    why: '1 below and 4 above the bass',
    or: [{ lower: '6/3-3*4', upper: '4/1-1*2 2/4-4*2', why: '3 in the bass' }],
  },
  {
    id: 'd-over-f',
    bpm: 66,
    lower: '4/3-3*4 4/3-3*4',
    upper: '2/1-1*2 2/3-4*2 1/1-1*4',
    why: '3 holds, 1 goes over',
  },
  {
    id: 'tenth',
    bpm: 60,
    upper: '6/1-1+3/2-2*4 6/3-2+3/4-3*4',
    why: 'tenths in neighbour fingers',
    or: [
      { upper: '6/1-1+3/2-2*4 6/3-3+2/0*4', why: 'B open' },
      { upper: '6/1-1+3/2-2*4 6/3-1+3/4-2*4', why: 'one shape moved' },
    ],
  },
];
