/** Corrections of the score, newer files, editions and the survey, in the browser. */
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { documentXml, noteXml } from '../helpers/music';
import { importAndOpen, mark, note, saved, signIn, untilPlanned } from './steps';

test.beforeEach(async ({ page }) => {
  await signIn(page);
});

const scoreTab = (page: Page) => page.getByRole('tab', { name: 'Score' }).click();
const corrections = (page: Page) => page.getByTestId('corrections').getByRole('listitem');

test('pitch, length, tie, must ring: corrected by keys, shown as corrected, kept, and taken back', async ({
  page,
}) => {
  await importAndOpen(page, 'corrections.musicxml');
  await note(page, 'n2').click();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.getByRole('heading', { name: 'D♯4' })).toBeVisible();
  await expect(page.locator('[data-corrected=n2]')).toBeVisible();
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('k');
  await scoreTab(page);
  await expect(corrections(page)).toHaveText([/pitch D♯4/, /length 3\/8 quarters/, /must ring/]);
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await scoreTab(page);
  await expect(corrections(page)).toHaveCount(3);
  await corrections(page).first().getByRole('button', { name: 'take back' }).click();
  await expect(corrections(page)).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(corrections(page)).toHaveCount(3);
});

test('a correction that leaves the instrument is taken back with the reason', async ({ page }) => {
  await importAndOpen(page, 'octave.musicxml');
  await scoreTab(page);
  await page.getByLabel('Transposed by').fill('-24');
  await page.getByLabel('Transposed by').blur();
  await expect(page.getByRole('alert')).toContainText('The correction was taken back. Bar 1, voice');
  await expect(page.getByText('None. The file itself is never changed')).toBeVisible();
  await page.getByLabel('Capo at fret').fill('99');
  await page.getByLabel('Capo at fret').blur();
  await expect(page.getByRole('alert')).toContainText('whole number from 0 to 12');
  await page.getByLabel('Capo at fret').fill('3');
  await page.getByLabel('Capo at fret').blur();
  await expect(corrections(page)).toHaveText([/capo 3/]);
});

test('what cannot be corrected is said, and nothing changes', async ({ page }) => {
  await importAndOpen(page, 'room.musicxml');
  await note(page, 'n1').click();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(page.getByRole('alert')).toContainText('There is no room');
  await page.keyboard.press('-');
  await expect(page.getByRole('alert')).toContainText('nothing to tie it to');
});

const bar = (midis: readonly number[]) =>
  midis.map((midi) => noteXml({ midi, onset: 0, length: 2 })).join('');
const OLD = documentXml([bar([60, 62, 64, 65]), bar([67, 65, 64, 62])]);
const NEWER = documentXml([bar([48, 50, 52, 53]), bar([60, 62, 64, 65]), bar([67, 65, 63, 62])]);
const file = (name: string, xml: string) => ({ name, mimeType: 'application/xml', buffer: Buffer.from(xml) });

async function openFile(page: Page, name: string, xml: string) {
  await page.getByLabel('Score files').setInputFiles(file(name, xml));
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
}

test('a newer file keeps the ink, says what is new and gone, and shows what found no note', async ({
  page,
}) => {
  await openFile(page, 'old.musicxml', OLD);
  await note(page, 'n2').click();
  await page.keyboard.press('3');
  await note(page, 'n7').click();
  await page.keyboard.press('2');
  await saved(page);
  await scoreTab(page);
  await page.getByLabel('Newer file').setInputFiles(file('newer.musicxml', NEWER));
  await untilPlanned(page);
  await expect(mark(page, 'finger', 'n2')).toContainText('3');
  await expect(mark(page, 'finger', 'n2')).toHaveAttribute('data-state', 'ink');
  await scoreTab(page);
  await expect(page.getByTestId('report')).toContainText('New bars: 1.');
  await expect(page.getByTestId('report')).toContainText('1 marks were carried over');
  await expect(page.getByTestId('waiting-marks')).toHaveText(/Bar 2, E4: finger 2/);
  await page
    .getByLabel('Newer file')
    .setInputFiles(file('other.musicxml', documentXml([bar([45, 46, 49, 51])])));
  await expect(page.getByRole('alert')).toContainText('another piece');
});

test('an edition is saved as a file and comes onto the shelf again with its ink', async ({ page }) => {
  await openFile(page, 'out and in.musicxml', OLD);
  await note(page, 'n3').click();
  await page.keyboard.press('4');
  await saved(page);
  await scoreTab(page);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save edition' }).click(),
  ]);
  const text = readFileSync((await download.path())!, 'utf8');
  expect(JSON.parse(text)).toMatchObject({ format: 'oculon-edition', version: 2 });
  await page.goto('/shelf');
  await page
    .getByLabel('Score files')
    .setInputFiles({ name: 'again.oculon.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
  await expect(mark(page, 'finger', 'n3')).toHaveAttribute('data-state', 'ink');
});

test('a bar that is too full is marked on the page and explained', async ({ page }) => {
  await openFile(page, 'overfull.musicxml', documentXml([bar([60, 62, 64, 65]), bar([60, 62, 64, 65, 67])]));
  await expect(page.locator('[data-noticed]')).toHaveCount(1);
  await scoreTab(page);
  await expect(page.getByTestId('reading')).toContainText(
    'Bar 2, voice 1 (line 2) has 5 quarters where the metre asks for 4',
  );
});

test('the survey: form, chords that can be corrected, effort, techniques', async ({ page }) => {
  await page.getByRole('link', { name: 'Survey of Mill Bridge Dance' }).click();
  const strip = page.getByTestId('form-strip');
  await expect(strip.getByRole('listitem').first()).toHaveAccessibleName(/^A, bars 0 to 4/);
  await expect(page.getByText('different music')).toBeVisible();
  await strip.getByRole('button').nth(2).click();
  await page.getByLabel('Chord', { exact: true }).fill('no chord');
  await page.getByLabel('Chord', { exact: true }).blur();
  await expect(page.getByRole('alert')).toContainText('is no chord that the survey knows');
  await page.getByLabel('Chord', { exact: true }).fill('G/B');
  await page.getByLabel('Chord', { exact: true }).blur();
  await expect(strip.getByRole('button').nth(2)).toContainText('G/B');
  await saved(page);
  await page.reload();
  await expect(strip.getByRole('button').nth(2)).toContainText('G/B');
  await strip.getByRole('button').nth(2).click();
  await page.getByRole('button', { name: 'Take the chord back' }).click();
  await expect(strip.getByRole('button').nth(2)).not.toContainText('G/B');
  await expect(page.getByText('Hardest:')).toBeVisible();
  await expect(page.getByTestId('techniques').getByRole('listitem').first()).toBeVisible();
});
