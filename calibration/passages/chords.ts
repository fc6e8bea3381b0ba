/** Changes of chords. Fingerings: common practice. */
import type { Passage } from '../passage';

export const CHORDS: readonly Passage[] = [
  {
    id: 'c-g7-c',
    bpm: 72,
    upper: '5/3-3+4/2-2+3/0+2/1-1+1/0*4 6/3-3+5/2-2+4/0+3/0+2/0+1/1-1*4 5/3-3+4/2-2+3/0+2/1-1+1/0*4',
    why: 'every finger goes to the neighbouring string',
  },
  {
    id: 'am-e-am',
    bpm: 72,
    upper: '5/0+4/2-2+3/2-3+2/1-1+1/0*4 6/0+5/2-2+4/2-3+3/1-1+2/0+1/0*4 5/0+4/2-2+3/2-3+2/1-1+1/0*4',
    why: 'one shape over to the next strings and back',
  },
  {
    id: 'd-a7-d',
    bpm: 72,
    upper: '4/0+3/2-1+2/3-3+1/2-2*4 5/0+4/2-2+3/0+2/2-3+1/0*4 4/0+3/2-1+2/3-3+1/2-2*4',
    why: '3 slides on the second string',
    or: [
      {
        upper: '4/0+3/2-1+2/3-3+1/2-2*4 5/0+4/2-1+3/0+2/2-23+1/0*4 4/0+3/2-1+2/3-3+1/2-2*4',
        why: '1 goes to the neighbouring string',
      },
    ],
  },
  {
    id: 'dm-am',
    bpm: 72,
    upper: '4/0+3/2-2+2/3-34+1/1-1*4 5/0+4/2-2+3/2-3+2/1-1+1/0*4',
    why: 'first position',
    or: [{ upper: '4/0+3/2-3+2/3-4+1/1-1*4 5/0+4/2-2+3/2-3+2/1-1+1/0*4', why: '3 stays on A' }],
  },
  {
    id: 'g-d',
    bpm: 72,
    upper: '6/3-2+5/2-1+4/0+3/0+2/0+1/3-3*4 4/0+3/2-1+2/3-3+1/2-2*4',
    why: '3 from the first to the second string',
    or: [
      { upper: '6/3-3+5/2-2+4/0+3/0+2/0+1/3-4*4 4/0+3/2-1+2/3-3+1/2-2*4', why: '3 2 4 for G' },
      { upper: '6/3-2+5/2-1+4/0+3/0+2/0+1/3-4*4 4/0+3/2-1+2/3-3+1/2-2*4', why: '4 on the top' },
    ],
  },
  {
    id: 'em-b7-em',
    bpm: 72,
    upper: '6/0+5/2-2+4/2-3+3/0+2/0+1/0*4 5/2-2+4/1-1+3/2-3+2/0+1/2-4*4 6/0+5/2-2+4/2-3+3/0+2/0+1/0*4',
    why: '2 stays as a pivot',
  },
  {
    id: 'f-c',
    bpm: 66,
    upper: '4/3-3+3/2-2+2/1-1+1/1-1*4 5/3-3+4/2-2+3/0+2/1-1+1/0*4',
    why: '2 and 3 to the neighbouring strings, 1 stays',
  },
  {
    id: 'e7-a',
    bpm: 72,
    upper: '6/0+5/2-2+4/0+3/1-1+2/0+1/0*4 5/0+4/2-1+3/2-2+2/2-3+1/0*4',
    why: 'A by 1 2 3',
    or: [
      {
        upper: '6/0+5/2-2+4/0+3/1-1+2/0+1/0*4 5/0+4/2-2+3/2-3+2/2-4+1/0*4',
        why: 'A by 2 3 4: 2 to the neighbouring string',
      },
    ],
  },
  {
    id: 'a-d-e',
    bpm: 72,
    upper: '5/0+4/2-1+3/2-2+2/2-3+1/0*4 4/0+3/2-1+2/3-3+1/2-2*4 6/0+5/2-2+4/2-3+3/1-1+2/0+1/0*4',
    why: '3 slides on the second string',
  },
  { id: 'c9', bpm: 72, upper: '5/3-2+4/2-1+3/3-3+2/3-4*4', why: 'four fingers in order' },
  {
    id: 'dim7',
    bpm: 72,
    upper: '4/1-1+3/2-3+2/1-2+1/2-4*4',
    why: 'two pairs, the lower finger of each on the lower string',
  },
  {
    id: 'c-f-g7',
    bpm: 66,
    upper: '5/3-3+4/2-2+2/1-1*4 4/3-3+3/2-2+2/1-1+1/1-1*4 6/3-3+4/0+3/0+1/1-1*4',
    why: '1 stays on the second string',
    or: [
      {
        upper: '5/3-3+4/2-2+2/1-1*4 4/3-3+3/2-2+2/1-1+1/1-1*4 6/3-34+4/0+3/0+1/1-1*4',
        why: '4 reaches the bass',
      },
    ],
  },
  {
    id: 'dm-e',
    bpm: 72,
    upper: '4/0+3/2-2+2/3-34+1/1-1*4 6/0+5/2-2+4/2-3+3/1-1+2/0+1/0*4',
    why: 'first position',
  },
];
