/** Changes of position. Fingerings: common practice. */
import type { Passage } from '../passage';

export const SHIFTS: readonly Passage[] = [
  {
    id: 'on-the-open-string',
    bpm: 88,
    upper: '1/1-1 1/3-34 1/0 1/7-1 1/8-2 1/10-4',
    why: 'the hand goes while the open string sounds',
  },
  {
    id: 'back-on-the-open-string',
    bpm: 88,
    upper: '1/10-4 1/8-2 1/7-1 1/0 2/3-34 2/1-1',
    why: 'the way back on the open string',
  },
  {
    id: 'thirds',
    bpm: 60,
    upper: '2/1-1+1/0*2 2/3-3+1/1-1*2 2/5-3+1/3-1*2 2/6-2+1/5-1*2 2/8-2+1/7-1*2 2/10-3+1/8-1*2',
    why: '1 guides on the first string',
    or: [
      {
        upper: '2/1-1+1/0*2 2/3-4+1/1-1*2 2/5-34+1/3-1*2 2/6-2+1/5-1*2 2/8-2+1/7-1*2 2/10-34+1/8-1*2',
        why: '4 for the minor thirds',
      },
      {
        upper: '2/1-1+1/0*2 2/3-3+1/1-1*2 2/5-4+1/3-2*2 2/6-2+1/5-1*2 2/8-2+1/7-1*2 2/10-34+1/8-1*2',
        why: '4 2 in the middle',
      },
    ],
  },
  {
    id: 'sixths',
    bpm: 60,
    upper: '3/0+1/0*2 3/2-2+1/1-1*2 3/4-2+1/3-1*2 3/5-2+1/5-3*2 3/7-2+1/7-3*2 3/9-2+1/8-1*2',
    why: '2 guides on the third string',
    or: [
      {
        upper: '3/0+1/0*2 3/2-3+1/1-12*2 3/4-3+1/3-2*2 3/5-3+1/5-4*2 3/7-3+1/7-4*2 3/9-3+1/8-2*2',
        why: '3 guides',
      },
    ],
  },
  {
    id: 'after-a-rest',
    bpm: 80,
    upper: '1/1-1 1/3-34 -*2 1/8-1 1/10-3 1/12-4',
    why: 'the hand goes in the rest',
    or: [{ upper: '1/1-1 1/3-34 -*2 1/8-1 1/10-2 1/12-4', why: '2 in the middle' }],
  },
  {
    id: 'down-the-first-string',
    bpm: 72,
    upper: '1/8-4 1/7-3 1/5-1 1/3-34 1/1-1 1/0',
    why: 'three notes to a position',
    or: [
      { upper: '1/8-4 1/7-3 1/5-1 1/3-3 1/1-1 1/0', why: '3 after 1' },
      { upper: '1/8-4 1/7-3 1/5-1 2/8-4 2/6-2 2/5-1', why: 'all of it lies in one position' },
    ],
  },
  {
    id: 'dim7-moved',
    bpm: 60,
    upper: '4/1-1+3/2-3+2/1-2+1/2-4*4 4/4-1+3/5-3+2/4-2+1/5-4*4 4/7-1+3/8-3+2/7-2+1/8-4*4',
    why: 'one shape moved: every finger guides',
  },
  {
    id: 'repeated-note',
    bpm: 88,
    upper: '1/0 1/1-1 1/3-34 1/3-1 1/5-3 1/6-4',
    why: 'the hand goes on the repeated note',
    or: [{ upper: '1/0 1/1-1 1/3-1 1/3-1 1/5-3 1/6-4', why: '1 slides before it' }],
  },
  {
    id: 'open-a-bass',
    bpm: 80,
    lower: '5/0*8',
    upper: '2/1-1 2/3-34 1/0 1/1-1 1/0 1/8-4 1/7-3 1/5-1',
    why: 'the shift falls on the open string',
    or: [{ lower: '5/0*8', upper: '2/1-1 2/3-34 1/0 1/1-1 1/0 1/8-4 1/7-23 1/5-1', why: '2 in the middle' }],
  },
  {
    id: 'minor-thirds-moved',
    bpm: 60,
    upper: '3/2-2+2/1-1*2 3/4-2+2/3-1*2 3/7-2+2/6-1*2 3/9-2+2/8-1*2',
    why: 'one shape moved',
    or: [
      {
        upper: '3/2-2+2/1-1*2 3/4-34+2/3-23*2 2/3-34+1/1-1*2 2/5-34+1/3-12*2',
        why: 'over to the upper strings',
      },
    ],
  },
  {
    id: 'chord-after-open',
    bpm: 66,
    lower: '6/0*4 5/0*4',
    upper: '2/0 1/0 2/0 1/0 3/5-1+2/5-1+1/5-1*4',
    why: 'the hand goes under the open strings',
    or: [
      {
        lower: '6/0*4 5/0*4',
        upper: '2/0 1/0 2/0 1/0 3/5-1+2/5-2+1/5-3*4',
        why: 'three fingers instead of the barre',
      },
    ],
  },
  {
    id: 'to-the-fifth',
    bpm: 66,
    upper: '1/0*2 1/1-1*2 1/0*2 1/5-1*2 1/7-3*2 1/8-4*2',
    why: 'on the open string',
    or: [
      { upper: '1/0*2 1/1-1*2 1/0*2 1/5-1*2 1/7-23*2 1/8-34*2', why: 'other fingers of the same position' },
      { upper: '2/5-1*2 2/6-2*2 2/5-1*2 1/5-1*2 1/7-3*2 1/8-4*2', why: 'slow: no open string, one position' },
    ],
  },
  {
    id: 'fast-on-the-open-string',
    bpm: 160,
    upper: '2/1-1 1/0 2/8-34 1/8-34 1/7-23 1/5-1',
    why: 'fast: the only time to go is the open string',
    or: [
      { upper: '2/1-1 1/0 2/8-34 1/8-34 1/7-23 1/5-12', why: '2 for the last' },
      { upper: '3/5-1 1/0 2/8-4 1/8-4 1/7-3 1/5-1', why: 'in the fifth position from the beginning' },
    ],
  },
  {
    id: 'fast-in-one-position',
    bpm: 168,
    upper: '1/8-4 1/7-3 1/5-1 2/8-4 2/6-2 2/5-1 1/5-1 1/8-4',
    why: 'fast: no time to leave the position',
    or: [{ upper: '1/8-4 1/7-3 1/5-1 2/8-4 2/6-2 1/0 1/5-1 1/8-4', why: 'one open string' }],
  },
];
