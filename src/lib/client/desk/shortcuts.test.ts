import { describe, expect, it } from 'vitest';
import { keyOf, maybeShortcut, SHORTCUTS } from './shortcuts';

const press = (key: string, held: { ctrl?: boolean; shift?: boolean; alt?: boolean } = {}) =>
  maybeShortcut({ key, ctrlKey: !!held.ctrl, metaKey: false, shiftKey: !!held.shift, altKey: !!held.alt })
    ?.does ?? null;

describe('the keys of the desk', () => {
  it('name one thing each', () => {
    const all = SHORTCUTS.flatMap((row) =>
      row.keys.map(
        (key) => `${row.command ? 'command ' : ''}${row.alt ? 'alt ' : ''}${row.shift ? 'shift ' : ''}${key}`,
      ),
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
    expect([press('5'), press('s', { ctrl: true }), press('9', { alt: true }), press('z')]).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });

  it('mark with Shift what they go to without', () => {
    expect(press('ArrowRight')).toBe('next note of the voice');
    expect(press('ArrowRight', { shift: true })).toBe('mark to the next note of the voice');
    expect(press('ArrowLeft', { ctrl: true, shift: true })).toBe(
      'mark to the beginning of the bar, bar before',
    );
    expect(press('b')).toBe('mark the bar');
    expect(press('B', { shift: true })).toBe('mark the phrase');
  });

  it('take letters by their place, digits by what they are, and Ctrl by the letter', () => {
    const at = (key: string, code: string, held: Partial<KeyboardEvent> = {}) =>
      keyOf({ key, code, ctrlKey: false, metaKey: false, shiftKey: false, altKey: false, ...held });
    // A keyboard with a z where others have a y, and one with an a where others have a q.
    expect(at('z', 'KeyY')).toBe('y');
    expect(at('a', 'KeyQ')).toBe('q');
    expect(at('A', 'KeyB', { shiftKey: true })).toBe('B');
    expect(at('z', 'KeyY', { ctrlKey: true })).toBe('z');
    expect(at('3', 'Digit3')).toBe('3');
    expect(at('&', 'Digit1')).toBe('&');
  });

  it('have a group each, and words that say what they do', () => {
    for (const { does, shown, group, keys } of SHORTCUTS)
      expect([does, group, keys.length === 0 ? 'by name' : shown].every(Boolean)).toBe(true);
  });
});
