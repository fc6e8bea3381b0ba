/** The right hand on the desk: the strokes row, figures, schools, formulas, slurs. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { importAndOpen, mark, saved, signIn } from './steps';

test.beforeEach(async ({ page }) => {
  await signIn(page);
});

const ARPEGGIO = [0, 6, 12].flatMap((start) =>
  [45, 57, 60, 64, 60, 57].map((midi, k) => ({
    midi,
    onset: start + k,
    length: 1,
    voice: k === 0 ? 2 : 1,
  })),
);
const TRIAD = [48, 52, 55, 60, 64, 67, 72, 67, 64, 60, 55, 52].map((midi, onset) => ({
  midi,
  onset,
  length: 1,
}));

const C_SCALE = [60, 62, 64, 65, 67, 69, 71, 72, 71, 69, 67, 65, 64, 62, 60];
const SCALES = [...C_SCALE, ...C_SCALE].map((midi, onset) => ({ midi, onset, length: 1 }));

const strokesTab = (page: Page) => page.getByRole('tab', { name: 'Strokes' }).click();
/** In the order of the notes: the page holds its marks by where they stand. */
const letters = async (page: Page) => {
  const marks = await page
    .locator('[data-mark=pluck]')
    .evaluateAll((all) =>
      all.map((one) => [one.getAttribute('data-uid')!, one.textContent!.trim()] as const),
    );
  const number = (uid: string) => Number(uid.slice(1));
  return [...marks]
    .sort(([a], [b]) => number(a) - number(b))
    .map(([, text]) => text)
    .join('');
};

test('the strokes stand under the strings, with the figure and the formula that goes round', async ({
  page,
}) => {
  await importAndOpen(page, 'arpeggio.musicxml', ARPEGGIO);
  const row = page.getByTestId('strokes');
  await expect(row.locator('[data-stroke]')).toHaveCount(18);
  await expect(row.locator('[data-figure=brokenChord]')).toHaveText(/broken chord, p i m a m i/);
  await strokesTab(page);
  await expect(page.getByTestId('figures')).toContainText('broken chord: p i m a m i');
  await expect(page.getByTestId('formulas')).toContainText('p i m a m i, 18 strokes');
});

test('a letter says what it is part of, and every other one why it is dearer', async ({ page }) => {
  await importAndOpen(page, 'arpeggio.musicxml', ARPEGGIO);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('letters').getByRole('button').first()).toContainText('best');
  const panel = page.getByRole('complementary', { name: 'Note and findings' });
  await expect(panel).toContainText('p i m a m i: a broken chord');
  await expect(panel).toContainText(/[pim]: .*(\+\d+\.\d|plays again after \d+ ms)/);
});

test('a texture is named otherwise: planned at once, kept after a reload, and undone', async ({ page }) => {
  await importAndOpen(page, 'scale.musicxml', SCALES, 160);
  await expect.poll(() => letters(page)).toMatch(/^(im)+$|^(mi)+$/);
  await strokesTab(page);
  await expect(page.getByTestId('figure-here')).toContainText('line, i m');
  await page.getByLabel('It is').selectOption('brokenChord');
  await expect(page.getByTestId('figures')).toContainText('(named by you)');
  await expect.poll(() => letters(page)).not.toMatch(/^(im)+$|^(mi)+$/);
  const named = await letters(page);
  await saved(page);
  await page.reload();
  await expect.poll(() => letters(page)).toBe(named);
  await page.getByRole('link', { name: 'Survey' }).click();
  await expect(page.getByTestId('texture-strip')).toContainText('broken chord');
  await page.getByRole('link', { name: 'To the desk' }).click();
  await strokesTab(page);
  await page.getByLabel('It is').selectOption('');
  await expect.poll(() => letters(page)).toMatch(/^(im)+$|^(mi)+$/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => letters(page)).toBe(named);
});

test('a texture of the edition travels with its file', async ({ page }) => {
  await importAndOpen(page, 'scale.musicxml', SCALES, 160);
  await strokesTab(page);
  await page.getByLabel('It is').selectOption('slowMelody');
  await expect(page.getByTestId('figures')).toContainText('(named by you)');
  await saved(page);
  await page.getByRole('tab', { name: 'Score' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save edition' }).click();
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    marks: { target: string; attribute: string; value: string }[];
  };
  expect(file.marks.filter(({ attribute }) => attribute === 'texture')).toHaveLength(SCALES.length);
});

test('a school changes the letters, is kept, and can be undone', async ({ page }) => {
  await importAndOpen(page, 'triad.musicxml', TRIAD);
  await strokesTab(page);
  await page.getByLabel('School').selectOption('strict-im');
  await expect.poll(() => letters(page)).toMatch(/^(im)+$|^(mi)+$/);
  await expect(page.getByTestId('strokes').locator('[data-against=yes]').first()).toBeVisible();
  await saved(page);
  await page.reload();
  await expect.poll(() => letters(page)).toMatch(/^(im)+$|^(mi)+$/);
  await strokesTab(page);
  await page.getByLabel('School').selectOption('plectrum');
  await expect(mark(page, 'pluck', 'n1').locator('path')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => letters(page)).toMatch(/^(im)+$|^(mi)+$/);
});

test('a passage is compared in several ways; a formula is inked and a school is set for its bars', async ({
  page,
}) => {
  await importAndOpen(page, 'arpeggio.musicxml', ARPEGGIO);
  await strokesTab(page);
  await page.getByRole('button', { name: 'Compare formulas and schools' }).click();
  const ways = page.getByTestId('ways');
  await expect(ways).toContainText('as planned');
  await expect(ways).toContainText('strict i m');
  await ways.getByRole('button', { name: 'strict m a' }).click();
  await expect(page.getByText('Here: strict m a')).toBeVisible();
  await page.getByRole('button', { name: 'As the piece' }).click();
  await expect(page.getByText('Here: strict m a')).toHaveCount(0);
  await page.getByRole('button', { name: 'Compare formulas and schools' }).click();
  await ways.locator('button.cursor-pointer').first().click();
  await expect(page.locator('[data-mark=pluck][data-state=ink]').first()).toBeVisible();
});

test('a proposed slur is taken with one key and refused with another', async ({ page }) => {
  await importAndOpen(page, 'scale.musicxml', SCALES, 260);
  await strokesTab(page);
  await page.getByLabel('School').selectOption('strict-im');
  const proposals = page.getByTestId('slurs').getByRole('listitem');
  await expect(proposals.first()).toContainText(/takes a crossing away|spares a finger|eases a fast line/);
  // Those of the school before go as the plan of this one comes.
  let seen: string[] = [];
  const areStill = async () => {
    const last = seen.join();
    seen = await proposals.allTextContents();
    return seen.length > 0 && seen.join() === last;
  };
  await expect.poll(areStill, { intervals: [800] }).toBe(true);
  const count = seen.length;
  const slurred = await page.locator('[data-mark=pluck]').count();
  await proposals.first().getByRole('button').first().click();
  await page.keyboard.press('s');
  await expect(page.locator('[data-mark=pluck]')).toHaveCount(slurred - 1);
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-mark=pluck]')).toHaveCount(slurred);
  await expect(proposals).toHaveCount(count);
  await proposals.first().getByRole('button').first().click();
  const first = await proposals.first().textContent();
  await page.keyboard.press('x');
  await expect.poll(async () => (await proposals.allTextContents()).includes(first!)).toBe(false);
});
