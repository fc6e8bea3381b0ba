/** Ways from note to note, and with Shift the same while marking. */
import { type Way, WAYS } from '../selection.svelte';
import type { Shortcut } from './shortcut';

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

export const WAY_ROWS: readonly Shortcut[] = [
  ...way('ArrowRight', '→', 'next note of the voice', WAYS.onward),
  ...way('ArrowLeft', '←', 'note before in the voice', WAYS.back),
  ...way('ArrowRight', '→', 'next bar', WAYS.nextBar, true),
  ...way('ArrowLeft', '←', 'beginning of the bar, bar before', WAYS.previousBar, true),
  ...way('Home', 'Home', 'first note', WAYS.first),
  ...way('End', 'End', 'last note', WAYS.last),
];
