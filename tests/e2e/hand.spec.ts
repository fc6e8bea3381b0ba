/** The left hand on the desk: lanes, reasons, script, hand and school, ways out. */
import { expect, test, type Page } from '@playwright/test';
import { importAndOpen, mark, note, saved, scoreFile, signIn, untilPlanned } from './steps';

test.beforeEach(async ({ page }) => {
  await signIn(page);
});

const lanes = (page: Page) => page.getByTestId('lanes');
const handTab = (page: Page) => page.getByRole('tab', { name: 'Hand' }).click();

test('rings and shifts stand under the score, on the lanes of their strings; l folds them away', async ({
  page,
}) => {
  await importAndOpen(page, 'lanes.musicxml');
  await expect(lanes(page).locator('[data-ring]')).toHaveCount(10);
  // The open strings at the end of the bar have no end but the piece; C is held as written.
  await expect(lanes(page).locator('[data-ring=n9] [data-kind=sounding]')).toHaveCount(1);
  await expect(lanes(page).locator('[data-ring=n9]')).toHaveAttribute('data-end', 'written');
  await expect(page.getByTestId('legato')).toContainText('nothing cut');
  const ring = (await lanes(page).locator('[data-ring=n9] [data-kind=onset]').boundingBox())!;
  const head = (await note(page, 'n9').boundingBox())!;
  // Under its note, give or take the width of a notehead.
  expect(Math.abs(ring.x + ring.width / 2 - (head.x + head.width / 2))).toBeLessThan(head.width);
  await page.keyboard.press('l');
  await expect(lanes(page)).toHaveCount(0);
  await page.keyboard.press('l');
  await expect(lanes(page)).toBeVisible();
});

test('a cut note is hatched, says why, and can be let go on purpose; undo takes that back', async ({
  page,
}) => {
  await importAndOpen(page, 'cut.musicxml', [
    { midi: 41, onset: 0, length: 8, voice: 2 },
    { midi: 60, onset: 0, length: 4 },
    { midi: 81, onset: 4, length: 4 },
  ]);
  await expect(lanes(page).locator('[data-ring=n1] [data-kind=cut]')).toHaveCount(1);
  await expect(page.getByTestId('findings')).toContainText('Let go 2 beats early');
  await page.getByTestId('remedies').getByRole('button', { name: 'Let it go after 2 beats' }).click();
  await expect(lanes(page).locator('[data-kind=cut]')).toHaveCount(0);
  await expect(page.getByText('Everything can be played and sounds as long as it is written.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(lanes(page).locator('[data-ring=n1] [data-kind=cut]')).toHaveCount(1);
});

test('music that no hand can play comes with ways out', async ({ page }) => {
  const notes = [
    { midi: 40, onset: 0, length: 4 },
    { midi: 42, onset: 0, length: 4 },
    { midi: 64, onset: 0, length: 4 },
    { midi: 62, onset: 4, length: 4 },
  ];
  await page.getByLabel('Score files').setInputFiles(scoreFile('impossible.musicxml', notes));
  await page.getByRole('link', { name: 'open on the desk' }).click();
  // The first note is the one that is left out: there is nothing to rank for it.
  await expect(page.getByTestId('candidates')).toContainText('No hand can play this note');
  await expect(page.getByTestId('findings')).toContainText('No hand can play this note');
  await page.getByTestId('remedies').getByRole('button', { name: 'Leave this note out' }).first().click();
  await expect(page.getByTestId('findings')).toHaveCount(0);
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await page.getByRole('tab', { name: 'Score' }).click();
  await expect(page.getByTestId('corrections')).toContainText('left out');
});

test('the best choice says what speaks for it', async ({ page }) => {
  await importAndOpen(page, 'reasons.musicxml', [
    { midi: 48, onset: 0, length: 6, voice: 2 },
    { midi: 60, onset: 0, length: 2 },
    { midi: 62, onset: 2, length: 2 },
    { midi: 67, onset: 4, length: 2 },
  ]);
  await note(page, 'n3').click();
  await expect(page.getByTestId('candidates').getByRole('button').first()).toContainText(
    '4 instead of 3: 3 holds the bass C until beat 4',
  );
});

test('hand and school are kept with the piece, plan it anew, and are undone', async ({ page }) => {
  await importAndOpen(page, 'lens.musicxml', [
    { midi: 57, onset: 0, length: 4 },
    { midi: 60, onset: 0, length: 4 },
    { midi: 65, onset: 0, length: 4 },
    { midi: 64, onset: 4, length: 4 },
  ]);
  const top = mark(page, 'finger', 'n3');
  const middle = mark(page, 'finger', 'n2');
  await handTab(page);
  await page.getByLabel('Hand', { exact: true }).selectOption({ label: 'Child, ½ guitar, 530 mm' });
  // A child of that age bars nothing: two fingers on one fret, the lower one on the lower string.
  await expect(middle).toContainText('1');
  await expect(top).toContainText('2');
  await page.getByLabel('School', { exact: true }).selectOption({ label: 'Few barres' });
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await handTab(page);
  await expect(page.getByLabel('Hand', { exact: true })).toHaveValue('child-half');
  await expect(page.getByLabel('School', { exact: true })).toHaveValue('few-barres');
  await page.getByLabel('Hand', { exact: true }).selectOption({ label: 'Adult, large, 650 mm' });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByLabel('Hand', { exact: true })).toHaveValue('child-half');
});

test('the script of the hand is said step by step, or as blocks, and leads to its notes', async ({
  page,
}) => {
  await importAndOpen(page, 'script.musicxml');
  await handTab(page);
  const script = page.getByTestId('script');
  await expect(script).toContainText('place 3 on string 5, fret 3');
  const steps = await script.getByRole('listitem').count();
  await page.getByLabel('as blocks').check();
  await expect.poll(() => script.getByRole('listitem').count()).toBeLessThan(steps);
  await page.getByLabel('as blocks').uncheck();
  await script.getByRole('button').nth(1).click();
  await expect(page.locator('[data-note][aria-pressed=true]')).not.toHaveAttribute('data-note', 'n1');
});
