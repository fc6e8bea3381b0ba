/** Keys that mark a passage, move its ends, and copy it. */
import { phrasesOf } from '$core/survey/phrases';
import { barKinds } from '$core/survey/sameMusic';
import type { Desk } from '../desk.svelte';
import { copyToTwins } from '../ranges';
import type { Shortcut } from './shortcut';
import { WAY_ROWS } from './ways';

export const PASSAGES: readonly Shortcut[] = [
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
];

function markPhrase(desk: Desk): void {
  const { score } = desk.planning;
  if (score) desk.selection.markPhrase(phrasesOf(score, barKinds(score), new Map()));
}
