/** Keys that change the music itself, while that is turned on. */
import {
  correctLength,
  correctPitch,
  correctTie,
  correctVoice,
  flipOctave,
  toggleMustRing,
  toggleStaccato,
} from '../correct';
import type { Desk } from '../desk.svelte';
import type { Shortcut } from './shortcut';

/** While the corrections are off their keys say so, and change nothing. */
const correction = (correct: (desk: Desk, key: string) => void) => (desk: Desk, key: string) => {
  if (desk.correcting) correct(desk, key);
  else desk.notice = 'Corrections of the music are off: Shift e turns them on.';
};

export const CORRECTING: readonly Shortcut[] = [
  {
    keys: ['E'],
    shift: true,
    group: 'correct',
    shown: 'Shift e',
    does: 'corrections of the music on or off',
    run: (desk) => {
      desk.correcting = !desk.correcting;
      desk.notice = desk.correcting ? 'Corrections are on: keys change the music.' : 'Corrections are off.';
    },
  },
  {
    keys: ['ArrowUp', 'ArrowDown'],
    alt: true,
    group: 'correct',
    shown: 'Alt ↑ ↓',
    does: 'pitch by a semitone',
    run: correction((desk, key) => correctPitch(desk, key === 'ArrowUp' ? 1 : -1)),
  },
  {
    keys: ['ArrowLeft', 'ArrowRight'],
    alt: true,
    group: 'correct',
    shown: 'Alt ← →',
    does: 'shorter, longer',
    run: correction((desk, key) => correctLength(desk, key === 'ArrowRight' ? 1 : -1)),
  },
  {
    keys: ['-'],
    group: 'correct',
    shown: '-',
    does: 'tie to the next note, or not',
    run: correction(correctTie),
  },
  { keys: ['v'], group: 'correct', shown: 'v', does: 'next voice', run: correction(correctVoice) },
  { keys: ['k'], group: 'correct', shown: 'k', does: 'must ring', run: correction(toggleMustRing) },
  { keys: ['.'], group: 'correct', shown: '.', does: 'staccato', run: correction(toggleStaccato) },
  {
    keys: ['o'],
    group: 'correct',
    shown: 'o',
    does: 'octave of the whole file',
    run: correction(flipOctave),
  },
];
