/** Keys that decide the note, or what is marked. */
import { setFinger, setPluck, setString } from '../deciding';
import { inkAll, inkRange, pencilRange } from '../ranges';
import { acceptSlur, refuseSlur } from '../slurs';
import type { Shortcut } from './shortcut';

/** Keys of the strings 1 to 6, one row of the keyboard. */
export const STRING_KEYS = ['q', 'w', 'e', 'r', 't', 'y'] as const;

const LETTER_KEYS = ['p', 'i', 'm', 'a', 'c'] as const;

export const DECIDING: readonly Shortcut[] = [
  {
    keys: ['0', '1', '2', '3', '4'],
    group: 'decide',
    shown: '0 – 4',
    does: 'left-hand finger',
    run: (desk, key) => setFinger(desk, Number(key)),
  },
  {
    keys: STRING_KEYS,
    group: 'decide',
    shown: 'q w e r t y',
    does: 'strings 1 to 6',
    run: (desk, key) => setString(desk, STRING_KEYS.indexOf(key as (typeof STRING_KEYS)[number]) + 1),
  },
  {
    keys: LETTER_KEYS,
    group: 'decide',
    shown: 'p i m a c',
    does: 'right-hand finger',
    run: (desk, key) => setPluck(desk, key as (typeof LETTER_KEYS)[number]),
  },
  { keys: ['d'], group: 'decide', shown: 'd', does: 'plectrum down', run: (desk) => setPluck(desk, 'down') },
  { keys: ['u'], group: 'decide', shown: 'u', does: 'plectrum up', run: (desk) => setPluck(desk, 'up') },
  {
    keys: ['Enter'],
    group: 'decide',
    shown: 'Enter',
    does: 'ink the note, or what is marked, as it stands',
    run: inkRange,
  },
  {
    keys: ['Enter'],
    command: true,
    group: 'decide',
    shown: 'Ctrl Enter',
    does: 'ink the whole piece as it stands',
    run: inkAll,
  },
  {
    keys: ['Backspace', 'Delete'],
    group: 'decide',
    shown: '⌫',
    does: 'back to pencil',
    run: pencilRange,
  },
  {
    keys: ['s'],
    group: 'decide',
    shown: 's',
    does: 'take the proposed slur, or go to the next one',
    run: acceptSlur,
  },
  { keys: ['x'], group: 'decide', shown: 'x', does: 'refuse the proposed slur', run: refuseSlur },
  {
    keys: [','],
    group: 'decide',
    shown: ',',
    does: 'damp the string after the note, all strings, none',
    run: (desk) => desk.nextDamp(),
  },
  {
    keys: ['h'],
    group: 'decide',
    shown: 'h',
    does: 'print the marks of the note at every density, or not',
    run: (desk) => desk.toggleAlwaysPrint(),
  },
  { keys: ['z'], command: true, group: 'decide', shown: 'Ctrl z', does: 'undo', run: (desk) => desk.undo() },
  { keys: ['y'], command: true, group: 'decide', shown: 'Ctrl y', does: 'redo', run: (desk) => desk.redo() },
  {
    keys: ['Z'],
    command: true,
    shift: true,
    group: 'decide',
    shown: 'Ctrl Shift z',
    does: 'redo',
    run: (desk) => desk.redo(),
  },
  {
    keys: ['M'],
    shift: true,
    group: 'decide',
    shown: 'Shift m',
    does: 'where somebody else was faster: my marks',
    run: (desk) => desk.session.takeMine(),
  },
  {
    keys: ['T'],
    shift: true,
    group: 'decide',
    shown: 'Shift t',
    does: 'where somebody else was faster: theirs',
    run: (desk) => desk.session.takeTheirs(),
  },
];
