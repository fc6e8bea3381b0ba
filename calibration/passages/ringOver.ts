/** Lines whose notes overlap on different strings. Fingerings: common practice. */
import type { Passage } from '../passage';

export const RING_OVER: readonly Passage[] = [
  {
    id: 'e-d-c-b',
    bpm: 100,
    school: 'ring-over',
    upper: '1/0 2/3-12 3/5-34 2/0',
    why: 'every note on another string',
  },
  {
    id: 'g-a-b-c',
    bpm: 100,
    school: 'ring-over',
    upper: '3/0 4/7-34 2/0 3/5-12',
    why: 'every note on another string',
  },
  {
    id: 'b-c-b-a',
    bpm: 100,
    school: 'ring-over',
    upper: '2/0 3/5-12 2/0 4/7-34',
    why: 'stopped notes beside the open string',
  },
  {
    id: 'f-e-d-e',
    bpm: 100,
    school: 'ring-over',
    upper: '2/6-34 1/0 2/3-1234 1/0',
    why: 'the open string between',
    or: [
      { upper: '2/6-34 1/0 3/7-34 1/0', why: 'further up' },
      { upper: '1/1-1 2/5-4 3/7-34 2/5-12', why: 'all stopped' },
    ],
  },
  {
    id: 'a-g-a-b',
    bpm: 100,
    school: 'ring-over',
    upper: '4/7-1234 3/0 4/7-1234 2/0',
    why: 'A beside the open strings',
  },
  { id: 'c-e-c-e', bpm: 108, upper: '2/1-1 1/0 2/1-1 1/0 2/1-1 1/0', why: 'no need to go anywhere' },
  {
    id: 'd-e-d-b',
    bpm: 100,
    school: 'ring-over',
    upper: '2/3-1234 1/0 2/3-1234 3/4-1234',
    why: 'B on the third string lets D ring',
    or: [{ upper: '3/7-34 1/0 3/7-34 2/0', why: 'two open strings' }],
  },
];
