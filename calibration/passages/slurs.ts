/** Slurs. Fingerings: common practice. */
import type { Passage } from '../passage';

export const SLURS: readonly Passage[] = [
  { id: 'from-open', bpm: 92, upper: '2/0 ~2/1-1 1/0 ~1/1-1 1/3-34', why: 'hammer-ons from open strings' },
  {
    id: 'pull-offs',
    bpm: 92,
    upper: '1/3-34 ~1/1-1 1/0 2/3-34 ~2/1-1 2/0',
    why: 'pull-offs to a finger that lies',
  },
  {
    id: 'hammers',
    bpm: 92,
    upper: '1/1-1 ~1/3-3 1/0 2/1-1 ~2/3-3 1/0',
    why: '1 and 3 are strong',
    or: [{ upper: '1/1-1 ~1/3-34 1/0 2/1-1 ~2/3-34 1/0', why: '4 as well' }],
  },
  { id: 'up-the-neck', bpm: 84, upper: '1/5-1 ~1/7-3 1/8-4 1/7-3 1/5-1', why: 'fifth position' },
  { id: 'to-open', bpm: 96, upper: '1/1-1 ~1/0 2/1-1 ~2/0 3/2-2 ~3/0', why: 'pull-offs to open strings' },
  { id: 'in-a-run', bpm: 108, upper: '3/0 ~3/2-2 2/0 ~2/1-1 2/3-34 1/0', why: 'first position' },
];
