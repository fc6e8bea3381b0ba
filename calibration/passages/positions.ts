/** Passages up the neck. Fingerings: common practice. */
import type { Passage } from '../passage';

export const POSITIONS: readonly Passage[] = [
  {
    id: 'at-eight',
    bpm: 88,
    upper: '1/8-1 1/10-3 1/12-4 1/10-3 1/8-1',
    why: 'eighth position',
    or: [{ upper: '1/8-1 1/10-2 1/12-4 1/10-2 1/8-1', why: '2 in the middle' }],
  },
  { id: 'at-seven', bpm: 92, upper: '1/7-1 1/8-2 1/10-4 1/8-2 1/7-1', why: 'seventh position' },
  {
    id: 'at-five',
    bpm: 132,
    upper: '1/5-1 1/7-3 1/8-4 1/7-3 1/5-1 2/8-4 2/6-2 2/5-1',
    why: 'fifth position throughout',
    or: [{ upper: '1/5-1 1/7-3 1/8-4 1/7-3 1/5-1 2/8-4 2/6-2 1/0', why: 'the last note open' }],
  },
  {
    id: 'at-nine',
    bpm: 138,
    upper: '1/12-4 1/10-2 1/9-1 2/12-4 2/10-2 2/9-1',
    why: 'ninth position',
    or: [{ upper: '1/12-4 1/10-2 1/9-1 1/7-4 1/5-2 1/4-1', why: 'down the first string' }],
  },
  { id: 'at-twelve', bpm: 84, upper: '1/12-1 1/14-3 1/15-4 1/14-3 1/12-1', why: 'twelfth position' },
  {
    id: 'c-scale-at-five',
    bpm: 126,
    upper: '3/5-1 3/7-3 2/5-1 2/6-2 2/8-4 1/5-1 1/7-3 1/8-4',
    why: 'fifth position',
    or: [
      { upper: '2/1-1 2/3-34 1/0 1/1-1 1/3-34 1/5-1 1/7-3 1/8-4', why: 'first, then fifth position' },
      { upper: '2/1-1 2/3-34 1/0 2/6-2 2/8-4 1/5-1 1/7-3 1/8-4', why: 'on the open string' },
    ],
  },
  {
    id: 'minor-triad-at-ten',
    bpm: 84,
    upper: '2/10-3 1/8-1 1/12-4 1/8-1 2/10-3',
    why: 'eighth position',
    or: [{ upper: '2/10-2 1/8-1 1/12-4 1/8-1 2/10-2', why: '2 below' }],
  },
  {
    id: 'duet-at-seven',
    bpm: 72,
    upper: '2/8-2+1/7-1*2 2/10-4+1/8-2*2 2/8-2+1/7-1*2',
    why: 'seventh position',
    or: [
      { upper: '2/8-2+1/7-1*2 2/10-3+1/8-1*2 2/8-2+1/7-1*2', why: '1 guides' },
      { upper: '2/8-2+1/7-1*2 2/10-34+1/8-12*2 2/8-2+1/7-1*2', why: 'seventh position' },
    ],
  },
  {
    id: 'bass-and-high',
    bpm: 72,
    lower: '6/0*8',
    upper: '1/7-1*2 1/8-2*2 1/10-4*2 1/7-1*2',
    why: 'seventh position over the open bass',
  },
  {
    id: 'second-position',
    bpm: 112,
    upper: '2/2-1 2/3-2 2/5-4 1/2-1 1/3-2 1/5-4 1/3-2 1/2-1',
    why: 'second position',
    or: [
      { upper: '2/2-1 2/3-2 1/0 1/2-1 1/3-2 1/5-4 1/3-2 1/2-1', why: 'with the open string' },
      {
        upper: '2/2-2 2/3-3 1/0 1/2-1 1/3-2 1/5-4 1/3-2 1/2-1',
        why: 'to second position on the open string',
      },
    ],
  },
];
