/** Keys that show something else. */
import type { Shortcut } from './shortcut';

export const VIEWS: readonly Shortcut[] = [
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
];
