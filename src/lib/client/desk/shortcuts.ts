/** Everything that can be done at the desk, in one list: keys, palette, help and tests read it. */
import { CORRECTING } from './keys/correcting';
import { DECIDING } from './keys/deciding';
import { MOVING } from './keys/moving';
import { PASSAGES } from './keys/passages';
import type { Shortcut } from './keys/shortcut';
import { SOUND } from './keys/sound';
import { VIEWS } from './keys/views';

export const SHORTCUTS: readonly Shortcut[] = [
  ...MOVING,
  ...DECIDING,
  ...SOUND,
  ...PASSAGES,
  ...VIEWS,
  ...CORRECTING,
];

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
