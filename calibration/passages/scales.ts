/** Scales and runs. Fingerings: common practice. */
import type { Passage } from '../passage';

export const SCALES: readonly Passage[] = [
  {
    id: 'c-major',
    bpm: 100,
    upper: '5/3-3 4/0 4/2-2 4/3-3 3/0 3/2-2 2/0 2/1-1',
    why: 'first position, a finger to a fret',
  },
  {
    id: 'g-major-two-octaves',
    bpm: 100,
    upper: '6/3-3 5/0 5/2-2 5/3-3 4/0 4/2-2 4/4-4 3/0 3/2-2 2/0 2/1-1 2/3-34 1/0 1/2-2 1/3-34',
    why: 'first position',
  },
  { id: 'f-major', bpm: 96, upper: '4/3-3 3/0 3/2-2 3/3-3 2/1-1 2/3-34 1/0 1/1-1', why: 'first position' },
  {
    id: 'd-major',
    bpm: 104,
    upper: '4/0 4/2-2 4/4-4 3/0 3/2-2 2/0 2/2-2 2/3-3',
    why: 'first position',
    or: [{ upper: '4/0 4/2-1 4/4-3 3/0 3/2-1 2/0 2/2-1 2/3-2', why: 'second position throughout' }],
  },
  {
    id: 'a-harmonic-minor',
    bpm: 96,
    upper: '5/0 5/2-2 5/3-3 4/0 4/2-2 4/3-3 3/1-1 3/2-2',
    why: 'first position',
  },
  {
    id: 'e-minor-two-octaves',
    bpm: 100,
    upper: '6/0 6/2-2 6/3-3 5/0 5/2-2 5/3-3 4/0 4/2-2 4/4-4 3/0 3/2-2 2/0 2/1-1 2/3-34 1/0',
    why: 'first position',
  },
  {
    id: 'chromatic-basses',
    bpm: 90,
    upper: '6/1-1 6/2-2 6/3-3 6/4-4 5/0 5/1-1 5/2-2 5/3-3 5/4-4 4/0',
    why: 'one finger a fret',
  },
  {
    id: 'chromatic-treble',
    bpm: 90,
    upper: '1/0 1/1-1 1/2-2 1/3-3 1/4-4 1/3-3 1/2-2 1/1-1',
    why: 'one finger a fret',
  },
  {
    id: 'up-the-first-string',
    bpm: 66,
    upper: '1/0 1/1-1 1/3-34 1/5-1 1/7-3 1/8-4 1/10-1 1/12-34',
    why: 'shifts on 1, a position for three notes',
    or: [
      { upper: '1/0 1/1-1 1/3-3 1/5-1 1/7-2 1/8-3 1/10-1 1/12-34', why: '2 and 3 in the middle group' },
      { upper: '1/0 1/1-1 1/3-34 1/5-1 1/7-3 1/8-1 1/10-3 1/12-34', why: 'shift a note earlier' },
    ],
  },
  {
    id: 'a-major',
    bpm: 100,
    upper: '5/0 5/2-2 5/4-4 4/0 4/2-2 4/4-4 3/1-1 3/2-2',
    why: 'first position',
    or: [
      { upper: '5/0 5/2-1 5/4-3 4/0 4/2-1 4/4-34 3/1-1 3/2-2', why: 'second position, back on the last two' },
    ],
  },
  {
    id: 'b-flat-major',
    bpm: 92,
    upper: '5/1-1 5/3-3 4/0 4/1-1 4/3-3 3/0 3/2-2 3/3-3',
    why: 'first position',
  },
  {
    id: 'e-major',
    bpm: 96,
    upper: '4/2-2 4/4-4 3/1-1 3/2-2 2/0 2/2-2 2/4-4 1/0',
    why: 'first position',
    or: [{ upper: '4/2-2 4/4-4 3/1-1 3/2-2 3/4-4 2/2-2 2/4-4 1/0', why: 'no open string inside the line' }],
  },
  {
    id: 'c-major-down',
    bpm: 108,
    upper: '1/3-34 1/1-1 1/0 2/3-34 2/1-1 2/0 3/2-2 3/0',
    why: 'first position',
  },
  {
    id: 'a-minor-turning',
    bpm: 88,
    upper: '3/2-2 2/0 2/1-1 2/3-34 1/0 2/3-34 2/1-1 2/0 3/2-2',
    why: 'first position, the way back as the way there',
  },
];
