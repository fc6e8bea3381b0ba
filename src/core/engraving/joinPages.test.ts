import { describe, expect, it } from 'vitest';
import { joinPages } from './joinPages';
import type { EngravedPage } from './page';

const box = { x: 1, y: 10, width: 2, height: 3 };
const page = (uid: string): EngravedPage => ({
  width: 100,
  height: 50,
  staffSpace: 5,
  svg: `<g id="${uid}"></g>`,
  firstLine: '',
  notes: [{ uid, ...box, keeper: box, system: 0 }],
  systems: [{ staffTop: 5, staffBottom: 25, left: 0, right: 100, obstacles: [box] }],
});

describe('sheets joined to one page', () => {
  it('moves every box down by the sheets above and counts systems on', () => {
    const joined = joinPages([page('n1'), page('n2')]);
    expect(joined).toMatchObject({ width: 100, height: 100 });
    expect(joined.notes[1]).toMatchObject({ uid: 'n2', y: 60, system: 1, keeper: { y: 60 } });
    expect(joined.systems[1]).toMatchObject({ staffTop: 55, staffBottom: 75, obstacles: [{ y: 60 }] });
    expect(joined.svg).toContain('translate(0, 50)');
  });
  it('leaves one sheet as it is and refuses none', () => {
    const one = page('n1');
    expect(joinPages([one])).toBe(one);
    expect(() => joinPages([])).toThrow(RangeError);
  });
});
