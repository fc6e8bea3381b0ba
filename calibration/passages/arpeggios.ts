/** Broken chords: the hand holds the chord. Fingerings: common practice. */
import type { Passage } from '../passage';

export const ARPEGGIOS: readonly Passage[] = [
  {
    id: 'c',
    bpm: 96,
    lower: '5/3-3*4 5/3-3*4',
    upper: '- 4/2-2 2/1-1 1/0 - 4/2-2 2/1-1 1/0',
    why: 'the C shape',
  },
  { id: 'a-minor', bpm: 96, lower: '5/0*4', upper: '4/2-2 3/2-3 2/1-1 1/0', why: 'the A minor shape' },
  { id: 'd-minor', bpm: 96, lower: '4/0*4', upper: '- 3/2-2 2/3-34 1/1-1', why: 'the D minor shape' },
  { id: 'e', bpm: 96, lower: '6/0*4', upper: '5/2-2 4/2-3 3/1-1 2/0', why: 'the E shape' },
  {
    id: 'g',
    bpm: 96,
    lower: '6/3-3*4',
    upper: '- 3/0 2/0 1/3-4',
    why: '3 on the bass, 4 on the top',
    or: [{ lower: '6/3-2*4', upper: '- 3/0 2/0 1/3-34', why: '2 on the bass' }],
  },
  { id: 'f-four-strings', bpm: 84, lower: '4/3-3*4', upper: '- 3/2-2 2/1-1 1/1-1', why: 'a small barre' },
  {
    id: 'a7',
    bpm: 96,
    lower: '5/0*4',
    upper: '4/2-2 3/0 2/2-3 1/0',
    why: 'open A seven',
    or: [
      { lower: '5/0*4', upper: '4/2-1 3/0 2/2-2 1/0', why: '1 and 2' },
      { lower: '5/0*4', upper: '4/2-1 3/0 2/2-3 1/0', why: '1 and 3' },
    ],
  },
  { id: 'b7', bpm: 88, lower: '5/2-2*4', upper: '4/1-1 3/2-3 2/0 1/2-4', why: 'the B seven shape' },
  { id: 'd', bpm: 96, lower: '4/0*4', upper: '- 3/2-1 2/3-3 1/2-2', why: 'the D shape' },
  {
    id: 'd-diminished',
    bpm: 84,
    lower: '4/0*4',
    upper: '- 3/1-1 2/0 1/1-2',
    why: 'on one fret the lower finger takes the lower string',
  },
  { id: 'e7', bpm: 96, lower: '6/0*4', upper: '5/2-2 4/0 3/1-1 2/0', why: 'E seven: E without 3' },
  {
    id: 'c-to-a-minor',
    bpm: 92,
    lower: '5/3-3*4 5/0*4',
    upper: '4/2-2 3/0 2/1-1 1/0 4/2-2 3/2-3 2/1-1 1/0',
    why: '1 and 2 stay, 3 goes over',
  },
  { id: 'd7', bpm: 92, lower: '4/0*4', upper: '- 3/2-2 2/1-1 1/2-3', why: 'the D seven shape' },
];
