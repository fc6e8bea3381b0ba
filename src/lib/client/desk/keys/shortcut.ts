/** One thing that can be done at the desk, with the keys that do it. */
import type { Desk } from '../desk.svelte';

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
