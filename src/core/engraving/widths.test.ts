import { expect, it } from 'vitest';
import { DESK_WIDTH, pageWidthFor } from './widths';

it('a page is no wider than what is stored, and a staff space no smaller than nine pixels where a bar fits', () => {
  expect(pageWidthFor(1400)).toBe(DESK_WIDTH);
  for (let pixels = 330; pixels < 900; pixels += 7) {
    const width = pageWidthFor(pixels);
    expect((pixels / width) * 18).toBeGreaterThanOrEqual(9);
    expect(width).toBeLessThanOrEqual(pageWidthFor(pixels + 1));
  }
  expect(pageWidthFor(10)).toBe(640);
});
