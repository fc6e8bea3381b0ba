/** Everything that can be done at the desk, as rows: keys, palette, help and tests read the same list. */
import { phrasesOf } from '$core/survey/phrases';
import { barKinds } from '$core/survey/sameMusic';
import {
  correctLength,
  correctPitch,
  correctTie,
  correctVoice,
  flipOctave,
  toggleMustRing,
  toggleStaccato,
} from './correct';
import { setFinger, setPluck, setString } from './deciding';
import type { Desk } from './desk.svelte';
import { EXPRESSION_IDS, type ExpressionId, EXPRESSIONS } from '$core/marks/expressions';
import { copyToTwins, express, inkAll, inkRange, pencilRange } from './ranges';
import { type Way, WAYS } from './selection.svelte';
import { acceptSlur, refuseSlur } from './slurs';

export const GROUPS = {
  move: 'Moving',
  decide: 'Deciding',
  sound: 'Sound, by name (Ctrl k)',
  passage: 'Passages',
  page: 'Page and views',
  correct: 'Corrections (Shift e turns them on)',
} as const;
export type Group = keyof typeof GROUPS;

export interface Shortcut {
  /** By character; letters by their place on the keyboard, so that another layout does not scatter them. */
  readonly keys: readonly string[];
  /** With Ctrl or ⌘. */
  readonly command?: boolean;
  readonly shift?: boolean;
  readonly alt?: boolean;
  readonly group: Group;
  /** As the help has it; empty for what only the palette does. */
  readonly shown: string;
  readonly does: string;
  readonly run: (desk: Desk, key: string) => void;
}

/** Keys of the strings 1 to 6, one row of the keyboard. */
export const STRING_KEYS = ['q', 'w', 'e', 'r', 't', 'y'] as const;

const LETTER_KEYS = ['p', 'i', 'm', 'a', 'c'] as const;

/** A way with its key, and with Shift the same while marking. */
const way = (key: string, shown: string, does: string, go: Way, command = false): readonly Shortcut[] => [
  {
    keys: [key],
    command,
    group: 'move',
    shown: command ? `Ctrl ${shown}` : shown,
    does,
    run: (desk) => desk.selection.go(go),
  },
  {
    keys: [key],
    command,
    shift: true,
    group: 'passage',
    shown: `${command ? 'Ctrl ' : ''}Shift ${shown}`,
    does: `mark to the ${does}`,
    run: (desk) => desk.selection.go(go, true),
  },
];

/** While the corrections are off their keys say so, and change nothing. */
const correction = (correct: (desk: Desk, key: string) => void) => (desk: Desk, key: string) => {
  if (desk.correcting) correct(desk, key);
  else desk.notice = 'Corrections of the music are off: Shift e turns them on.';
};

const EXPRESSION_NAMES: Readonly<Record<ExpressionId, string>> = {
  dynamic: 'loudness',
  articulation: 'articulation',
  gesture: 'vibrato or slide',
  colour: 'place to pluck',
  attack: 'word on the stroke',
};

const WAY_ROWS: readonly Shortcut[] = [
  ...way('ArrowRight', '→', 'next note of the voice', WAYS.onward),
  ...way('ArrowLeft', '←', 'note before in the voice', WAYS.back),
  ...way('ArrowRight', '→', 'next bar', WAYS.nextBar, true),
  ...way('ArrowLeft', '←', 'beginning of the bar, bar before', WAYS.previousBar, true),
  ...way('Home', 'Home', 'first note', WAYS.first),
  ...way('End', 'End', 'last note', WAYS.last),
];

export const SHORTCUTS: readonly Shortcut[] = [
  ...WAY_ROWS.filter(({ group }) => group === 'move'),
  {
    keys: ['ArrowUp'],
    group: 'move',
    shown: '↑',
    does: 'higher note that sounds',
    run: (desk) => desk.selection.go(WAYS.higher),
  },
  {
    keys: ['ArrowDown'],
    group: 'move',
    shown: '↓',
    does: 'lower note that sounds',
    run: (desk) => desk.selection.go(WAYS.lower),
  },
  {
    keys: ['n'],
    group: 'move',
    shown: 'n',
    does: 'next finding',
    run: (desk) => desk.selection.moveToFinding(1),
  },
  {
    keys: ['N'],
    shift: true,
    group: 'move',
    shown: 'Shift n',
    does: 'previous finding',
    run: (desk) => desk.selection.moveToFinding(-1),
  },
  { keys: ['j'], group: 'move', shown: 'j', does: 'step by step: next moment', run: (desk) => desk.walk(1) },
  {
    keys: [';'],
    group: 'move',
    shown: ';',
    does: 'step by step: moment before',
    run: (desk) => desk.walk(-1),
  },
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
  // Found by name: there are more of them than keys.
  ...EXPRESSION_IDS.flatMap((attribute) => [
    ...Object.entries(EXPRESSIONS[attribute].values).map(([value, { sign, words }]): Shortcut => ({
      keys: [],
      group: 'sound',
      shown: '',
      does: sign === words ? sign : `${words} (${sign})`,
      run: (desk) => express(desk, attribute, value),
    })),
    {
      keys: [],
      group: 'sound' as const,
      shown: '',
      does: `no ${EXPRESSION_NAMES[attribute]}`,
      run: (desk: Desk) => express(desk, attribute, null),
    },
  ]),
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
  ...WAY_ROWS.filter(({ group }) => group === 'passage'),
  {
    keys: ['b'],
    group: 'passage',
    shown: 'b',
    does: 'mark the bar',
    run: (desk) => desk.selection.markBar(),
  },
  {
    keys: ['B'],
    shift: true,
    group: 'passage',
    shown: 'Shift b',
    does: 'mark the phrase',
    run: markPhrase,
  },
  {
    keys: ['V'],
    shift: true,
    group: 'passage',
    shown: 'Shift v',
    does: 'mark the voice alone',
    run: (desk) => desk.selection.markVoice(),
  },
  {
    keys: ['a'],
    command: true,
    group: 'passage',
    shown: 'Ctrl a',
    does: 'mark everything',
    run: (desk) => desk.selection.markAll(),
  },
  {
    keys: ['Escape'],
    group: 'passage',
    shown: 'Esc',
    does: 'mark nothing',
    run: (desk) => desk.selection.mark(null),
  },
  {
    keys: ['['],
    group: 'passage',
    shown: '[',
    does: 'what is marked begins a bar earlier',
    run: (desk) => desk.selection.moveEnd('from', -1),
  },
  {
    keys: [']'],
    group: 'passage',
    shown: ']',
    does: 'what is marked ends a bar later',
    run: (desk) => desk.selection.moveEnd('to', 1),
  },
  {
    keys: ['{'],
    group: 'passage',
    shown: '{',
    does: 'what is marked begins a bar later',
    run: (desk) => desk.selection.moveEnd('from', 1),
  },
  {
    keys: ['}'],
    group: 'passage',
    shown: '}',
    does: 'what is marked ends a bar earlier',
    run: (desk) => desk.selection.moveEnd('to', -1),
  },
  {
    keys: ['='],
    group: 'passage',
    shown: '=',
    does: 'copy the fingering of what is marked, or of the bar, to the same music elsewhere',
    run: copyToTwins,
  },
  {
    keys: ['k'],
    command: true,
    group: 'page',
    shown: 'Ctrl k',
    does: 'everything that can be done, by name',
    run: (desk) => desk.openPalette(),
  },
  {
    keys: ['l'],
    group: 'page',
    shown: 'l',
    does: 'fold or unfold rings, shifts and strokes',
    run: (desk) => desk.toggleLanes(),
  },
  {
    keys: ['f'],
    group: 'page',
    shown: 'f',
    does: 'marks on every note, what a student needs, or the fewest',
    run: (desk) => desk.nextDensity(),
  },
  {
    keys: ['g'],
    group: 'page',
    shown: 'g',
    does: 'show or hide the fretboard',
    run: (desk) => desk.toggleBoard(),
  },
  {
    keys: ['p'],
    command: true,
    group: 'page',
    shown: 'Ctrl p',
    does: 'the copy: preview and print',
    run: (desk) => desk.toCopy(),
  },
  ...(
    [
      ['note', 'the note and the findings'],
      ['steps', 'step by step'],
      ['hand', 'hand, school and shifts'],
      ['strokes', 'the right hand'],
      ['score', 'how the file was read'],
    ] as const
  ).map(([tab, words], k): Shortcut => ({
    keys: [String(k + 1)],
    alt: true,
    group: 'page',
    shown: `Alt ${k + 1}`,
    does: `panel: ${words}`,
    run: (desk) => (desk.tab = tab),
  })),
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

function markPhrase(desk: Desk): void {
  const { score } = desk.planning;
  if (score) desk.selection.markPhrase(phrasesOf(score, barKinds(score), new Map()));
}

export interface KeyPress {
  readonly key: string;
  readonly code?: string;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
  readonly shiftKey: boolean;
  readonly altKey: boolean;
}

/** What a key stands for here: a letter by its place, unless it goes with Ctrl, where every program goes by the letter. */
export function keyOf({ key, code = '', ctrlKey, metaKey, shiftKey }: KeyPress): string {
  const place = /^Key([A-Z])$/.exec(code)?.[1];
  if (place === undefined || ctrlKey || metaKey) return key;
  return shiftKey ? place : place.toLowerCase();
}

/** The row that a key press asks for, or null. */
export function maybeShortcut(press: KeyPress): Shortcut | null {
  const command = press.ctrlKey || press.metaKey;
  const key = keyOf(press);
  return (
    SHORTCUTS.find(
      (row) =>
        row.keys.includes(key) &&
        !!row.command === command &&
        !!row.alt === press.altKey &&
        (!!row.shift === press.shiftKey || !isShiftable(key)),
    ) ?? null
  );
}

/** Signs and digits come with Shift on some keyboards and without on others. */
const isShiftable = (key: string) => /^[a-z]$/i.test(key) || key.length > 1;
