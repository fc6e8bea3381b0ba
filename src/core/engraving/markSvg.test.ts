/** Marks as drawing: what differs in form, and that nothing of a mark can become markup. */
import { describe, expect, it } from 'vitest';
import type { MarkState } from '../marks/mark';
import { type Drawing, markSvg } from './markSvg';
import type { PlacedMark } from './placeMarks';

const drawing: Drawing = {
  space: 100,
  scale: 1,
  colours: { pencil: 'grey', ink: 'black', conflict: 'red', paper: 'white' },
  lettering: (state, slanted) => `data-lettering="${state} ${slanted ? 'slanted' : 'upright'}"`,
  clearing: 'outline',
};
const placed = (kind: PlacedMark['kind'], text: string, state: MarkState = 'pencil'): PlacedMark => ({
  id: `${kind}:n1`,
  kind,
  uid: 'n1',
  toUid: 'n1',
  text,
  state,
  below: false,
  causes: [],
  departs: null,
  box: { x: 100, y: 200, width: 90, height: 120 },
  system: 0,
  lineTo: null,
});
const formsOf = (mark: PlacedMark, conflict = false) =>
  markSvg(mark, drawing, conflict)
    .replace(/-?\d+(\.\d+)?/g, '#')
    .replace(/grey|black|red/g, 'c');

describe('a mark', () => {
  it.each(['finger', 'string', 'barre'] as const)(
    '%s differs in form between its states, without colour',
    (kind) => {
      const forms = (['pencil', 'ink', 'printed'] as const).map((state) => formsOf(placed(kind, '3', state)));
      expect(new Set(forms).size).toBe(3);
    },
  );

  it('in conflict has a zigzag, one that departs from the file its sign', () => {
    expect(markSvg(placed('finger', '3'), drawing, true)).toContain('data-form="zigzag"');
    expect(markSvg({ ...placed('finger', '3'), departs: '4' }, drawing)).toContain('data-departs="4"');
  });

  it('of damping is a ring with a cross; two rings for all strings, and no text', () => {
    const rings = (text: string) => markSvg(placed('damp', text, 'ink'), drawing).match(/<circle/g)!.length;
    expect([rings('string'), rings('all')]).toEqual([1, 2]);
    expect(markSvg(placed('damp', 'all', 'ink'), drawing)).not.toContain('<text');
  });

  it('clears staff lines by its outline on screen and by a field on paper', () => {
    expect(markSvg(placed('finger', '3'), drawing)).toContain('paint-order="stroke"');
    const paper = markSvg(placed('finger', '3'), { ...drawing, clearing: 'field' });
    expect(paper).not.toContain('paint-order');
    expect(paper).toContain('<ellipse');
    // Letters stand clear of the staff.
    expect(markSvg(placed('pluck', 'm'), drawing)).not.toContain('paint-order');
  });

  it('lets no text become markup', () => {
    expect(markSvg(placed('barre', '<b>&"'), drawing)).toContain('&lt;b>&amp;&quot;');
  });
});
