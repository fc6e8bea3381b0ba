/** Keys that go somewhere. */
import { WAYS } from '../selection.svelte';
import type { Shortcut } from './shortcut';
import { WAY_ROWS } from './ways';

export const MOVING: readonly Shortcut[] = [
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
];
