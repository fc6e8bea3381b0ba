/** The desk's keys as rows: the handler, the help and the tests read the same list. */
import {
  correctLength,
  correctPitch,
  correctTie,
  correctVoice,
  flipOctave,
  toggleMustRing,
  toggleStaccato,
} from './correct';
import { acceptSlur, refuseSlur } from './slurs';
import type { Desk } from './desk.svelte';

export interface Shortcut {
  readonly keys: readonly string[];
  /** With Ctrl or ⌘. */
  readonly command?: boolean;
  readonly shift?: boolean;
  readonly alt?: boolean;
  /** Under which heading the help lists it. */
  readonly corrects?: boolean;
  readonly shown: string;
  readonly does: string;
  readonly run: (desk: Desk, key: string) => void;
}

/** Keys of the strings 1 to 6, one row of the keyboard. */
export const STRING_KEYS = ['q', 'w', 'e', 'r', 't', 'y'] as const;

export const SHORTCUTS: readonly Shortcut[] = [
  { keys: ['ArrowLeft'], shown: '←', does: 'previous moment', run: (desk) => desk.selection.moveInTime(-1) },
  { keys: ['ArrowRight'], shown: '→', does: 'next moment', run: (desk) => desk.selection.moveInTime(1) },
  { keys: ['ArrowUp'], shown: '↑', does: 'higher note', run: (desk) => desk.selection.moveInPitch(1) },
  { keys: ['ArrowDown'], shown: '↓', does: 'lower note', run: (desk) => desk.selection.moveInPitch(-1) },
  {
    keys: ['0', '1', '2', '3', '4'],
    shown: '0 – 4',
    does: 'left-hand finger',
    run: (desk, key) => desk.setFinger(Number(key)),
  },
  {
    keys: STRING_KEYS,
    shown: 'q w e r t y',
    does: 'strings 1 to 6',
    run: (desk, key) => desk.setString(STRING_KEYS.indexOf(key as (typeof STRING_KEYS)[number]) + 1),
  },
  {
    keys: ['p', 'i', 'm', 'a', 'c'],
    shown: 'p i m a c',
    does: 'right-hand finger',
    run: (desk, key) => desk.setPluck(key as 'p' | 'i' | 'm' | 'a' | 'c'),
  },
  { keys: ['Enter'], shown: 'Enter', does: 'ink the note as it stands', run: (desk) => desk.inkSelection() },
  {
    keys: ['Backspace', 'Delete'],
    shown: '⌫',
    does: 'back to pencil',
    run: (desk) => desk.pencilSelection(),
  },
  { keys: ['n'], shown: 'n', does: 'next finding', run: (desk) => desk.selection.moveToFinding(1) },
  {
    keys: ['N'],
    shift: true,
    shown: 'Shift n',
    does: 'previous finding',
    run: (desk) => desk.selection.moveToFinding(-1),
  },
  { keys: ['d'], shown: 'd', does: 'plectrum down', run: (desk) => desk.setPluck('down') },
  { keys: ['u'], shown: 'u', does: 'plectrum up', run: (desk) => desk.setPluck('up') },
  {
    keys: ['s'],
    shown: 's',
    does: 'take the proposed slur, or go to the next one',
    run: acceptSlur,
  },
  { keys: ['x'], shown: 'x', does: 'refuse the proposed slur', run: refuseSlur },
  {
    keys: ['l'],
    shown: 'l',
    does: 'fold or unfold rings, shifts and strokes',
    run: (desk) => desk.toggleLanes(),
  },
  {
    keys: ['f'],
    shown: 'f',
    does: 'marks on every note, what a student needs, or the fewest',
    run: (desk) => desk.nextDensity(),
  },
  {
    keys: ['h'],
    shown: 'h',
    does: 'print the marks of the note at every density, or not',
    run: (desk) => desk.toggleAlwaysPrint(),
  },
  {
    keys: [','],
    shown: ',',
    does: 'damp the string after the note, all strings, none',
    run: (desk) => desk.nextDamp(),
  },
  { keys: ['g'], shown: 'g', does: 'show or hide the fretboard', run: (desk) => desk.toggleBoard() },
  {
    keys: ['p'],
    command: true,
    shown: 'Ctrl p',
    does: 'the copy: preview and print',
    run: (desk) => desk.toCopy(),
  },
  { keys: ['z'], command: true, shown: 'Ctrl z', does: 'undo', run: (desk) => desk.undo() },
  { keys: ['y'], command: true, shown: 'Ctrl y', does: 'redo', run: (desk) => desk.redo() },
  {
    keys: ['Z'],
    command: true,
    shift: true,
    shown: 'Ctrl Shift z',
    does: 'redo',
    run: (desk) => desk.redo(),
  },
  {
    keys: ['ArrowUp', 'ArrowDown'],
    alt: true,
    corrects: true,
    shown: 'Alt ↑ ↓',
    does: 'pitch by a semitone',
    run: (desk, key) => correctPitch(desk, key === 'ArrowUp' ? 1 : -1),
  },
  {
    keys: ['ArrowLeft', 'ArrowRight'],
    alt: true,
    corrects: true,
    shown: 'Alt ← →',
    does: 'shorter, longer',
    run: (desk, key) => correctLength(desk, key === 'ArrowRight' ? 1 : -1),
  },
  { keys: ['-'], corrects: true, shown: '-', does: 'tie to the next note, or not', run: correctTie },
  { keys: ['v'], corrects: true, shown: 'v', does: 'next voice', run: correctVoice },
  { keys: ['k'], corrects: true, shown: 'k', does: 'must ring', run: toggleMustRing },
  { keys: ['.'], corrects: true, shown: '.', does: 'staccato', run: toggleStaccato },
  { keys: ['o'], corrects: true, shown: 'o', does: 'octave of the whole file', run: flipOctave },
];

export interface KeyPress {
  readonly key: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
}

/** The row that a key press asks for, or null. */
export function maybeShortcut(press: KeyPress): Shortcut | null {
  const command = press.ctrlKey || press.metaKey;
  return (
    SHORTCUTS.find(
      (row) =>
        row.keys.includes(press.key) &&
        !!row.command === command &&
        !!row.alt === press.altKey &&
        (!!row.shift === press.shiftKey || !isLetter(press.key)),
    ) ?? null
  );
}

const isLetter = (key: string) => /^[a-z]$/i.test(key);
