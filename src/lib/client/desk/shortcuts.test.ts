import { describe, expect, it } from 'vitest';
import { maybeShortcut, SHORTCUTS } from './shortcuts';

const press = (key: string, held: { ctrl?: boolean; shift?: boolean; alt?: boolean } = {}) =>
  maybeShortcut({ key, ctrlKey: !!held.ctrl, metaKey: false, shiftKey: !!held.shift, altKey: !!held.alt })
    ?.does ?? null;

describe('the keys of the desk', () => {
  it('name one thing each', () => {
    const all = SHORTCUTS.flatMap((row) =>
      row.keys.map((key) => `${row.command ? 'command ' : ''}${row.alt ? 'alt ' : ''}${key}`),
    );
    expect(new Set(all).size).toBe(all.length);
  });
  it('set fingers, strings and letters by one key', () => {
    expect([press('0'), press('4'), press('q'), press('y'), press('p')]).toEqual([
      'left-hand finger',
      'left-hand finger',
      'strings 1 to 6',
      'strings 1 to 6',
      'right-hand finger',
    ]);
  });
  it('correct by Alt and arrows, and by one key each', () => {
    expect([
      press('ArrowUp', { alt: true }),
      press('ArrowLeft', { alt: true }),
      press('-'),
      press('k'),
    ]).toEqual(['pitch by a semitone', 'shorter, longer', 'tie to the next note, or not', 'must ring']);
  });
  it('tell Ctrl y (redo) from y (sixth string), and leave foreign combinations alone', () => {
    expect(press('y', { ctrl: true })).toBe('redo');
    expect(press('z', { ctrl: true })).toBe('undo');
    expect(press('Z', { ctrl: true, shift: true })).toBe('redo');
    expect([press('5'), press('a', { ctrl: true }), press('1', { alt: true }), press('j')]).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });
});
