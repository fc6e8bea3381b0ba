/** Barres, full and partial. Fingerings: common practice. */
import type { Passage } from '../passage';

export const BARRES: readonly Passage[] = [
  { id: 'f', bpm: 60, upper: '6/1-1+5/3-3+4/3-4+3/2-2+2/1-1+1/1-1*4', why: 'the full barre' },
  { id: 'b-minor', bpm: 60, upper: '5/2-1+4/4-3+3/4-4+2/3-2+1/2-1*4', why: 'the A minor shape on a barre' },
  {
    id: 'f-sharp-minor',
    bpm: 60,
    upper: '6/2-1+5/4-3+4/4-4+3/2-1+2/2-1+1/2-1*4',
    why: 'the E minor shape on a barre',
  },
  {
    id: 'b-flat',
    bpm: 60,
    upper: '5/1-1+4/3-2+3/3-3+2/3-4+1/1-1*4',
    why: 'the A shape on a barre',
    or: [{ upper: '6/6-1+5/8-3+4/8-4+3/7-2+2/6-1*4', why: 'the E shape at VI' }],
  },
  {
    id: 'a-with-high-a',
    bpm: 60,
    upper: '5/0+4/2-1+3/2-1+2/2-1+1/5-4*4',
    why: 'a half barre leaves 4 free for the high A',
  },
  {
    id: 'b-minor-broken',
    bpm: 80,
    lower: '5/2-1*8',
    upper: '- 4/4-3 3/4-4 2/3-2 1/2-1 2/3-2 3/4-4 4/4-3',
    why: 'held as the chord it is',
  },
  { id: 'g-wide', bpm: 60, upper: '6/3-1+5/5-3+4/5-4+3/4-2+2/3-1+1/3-1*4', why: 'the E shape on a barre' },
  { id: 'a-at-five', bpm: 60, upper: '6/5-1+5/7-3+4/7-4+3/6-2+2/5-1+1/5-1*4', why: 'the E shape at V' },
  {
    id: 'one-before-the-barre',
    bpm: 72,
    upper: '1/0*2 1/1-1*2 4/3-3+3/2-2+2/1-1+1/1-1*4',
    why: 'the note before the barre on 1, which then lies half laid',
  },
  {
    id: 'am-at-five',
    bpm: 66,
    upper: '5/0+3/5-1+2/5-1+1/5-1*4',
    why: 'a small barre over an open bass',
    or: [
      { upper: '5/0+3/5-1+2/5-2+1/5-3*4', why: 'three fingers on one fret' },
      { upper: '5/0+3/5-2+2/5-3+1/5-4*4', why: 'three fingers on one fret' },
    ],
  },
  {
    id: 'f-to-f-minor',
    bpm: 60,
    upper: '6/1-1+5/3-3+4/3-4+3/2-2+2/1-1+1/1-1*4 6/1-1+5/3-3+4/3-4+3/1-1+2/1-1+1/1-1*4',
    why: 'the barre stays, 2 lifts',
  },
  {
    id: 'under-a-barre',
    bpm: 72,
    lower: '6/3-1*8',
    upper: '3/4-2*2 2/3-1*2 1/3-1*2 1/6-4*2',
    why: 'the barre at III holds the bass',
  },
  { id: 'c-minor', bpm: 60, upper: '5/3-1+4/5-3+3/5-4+2/4-2+1/3-1*4', why: 'the A minor shape at III' },
];
