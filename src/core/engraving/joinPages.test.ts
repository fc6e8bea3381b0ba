import { describe, expect, it } from 'vitest';
import { joinPages } from './joinPages';
import type { EngravedPage } from './page';

const box = { x: 1, y: 10, width: 2, height: 3 };
const page = (uid: string): EngravedPage => ({
  width: 100,
  height: 50,
  staffSpace: 5,
  glyphs: `<defs>${uid}</defs>`,
  firstLine: '',
  notes: [{ uid, ...box, keeper: box, system: 0 }],
  systems: [
    {
      staffTop: 5,
      staffBottom: 25,
      left: 0,
      right: 100,
      obstacles: [box],
      svg: `<g>${uid}</g>`,
      tempos: [{ box, svg: '<text/>' }],
    },
  ],
  bars: [{ system: 0, left: 0, right: 100 }],
});

describe('sheets joined to one page', () => {
  it('moves every box down by the sheets above and counts systems on', () => {
    const joined = joinPages([page('n1'), page('n2')]);
    expect(joined).toMatchObject({ width: 100, height: 100 });
    expect(joined.notes[1]).toMatchObject({ uid: 'n2', y: 60, system: 1, keeper: { y: 60 } });
    expect(joined.systems[1]).toMatchObject({ staffTop: 55, staffBottom: 75, obstacles: [{ y: 60 }] });
    expect(joined.bars.map(({ system }) => system)).toEqual([0, 1]);
    expect(joined.systems.map(({ svg }) => svg)).toEqual([
      '<g>n1</g>',
      '<g transform="translate(0, 50)"><g>n2</g></g>',
    ]);
    expect(joined.systems[1]!.tempos[0]!.box.y).toBe(60);
    expect(joined.glyphs).toBe('<defs>n1</defs><defs>n2</defs>');
  });
  it('leaves one sheet as it is and refuses none', () => {
    const one = page('n1');
    expect(joinPages([one])).toBe(one);
    expect(() => joinPages([])).toThrow(RangeError);
  });
});
