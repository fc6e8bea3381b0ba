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
  // Off by default: a stray key changes no music.
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.getByRole('alert')).toContainText('Shift e turns them on');
  await page.keyboard.press('Shift+E');
  await expect(page.getByTestId('correcting')).toBeVisible();
  await page.keyboard.press('Alt+ArrowUp');
  await expect(page.getByRole('alert')).toHaveText('D is now D♯.');
  await expect(page.getByRole('heading', { name: 'D♯' })).toBeVisible();
  await expect(page.locator('[data-corrected=n2]')).toBeVisible();
  await page.keyboard.press('Alt+ArrowLeft');
  await page.keyboard.press('k');
  await scoreTab(page);
  await expect(corrections(page)).toHaveText([/pitch D♯4/, /length 3\/8 beats/, /must ring/]);
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

test('a pitch that leaves the instrument is marked with ways out; impossible numbers are refused', async ({
  page,
}) => {
  await importAndOpen(page, 'octave.musicxml');
  await scoreTab(page);
  await page.getByLabel('Sounds at').fill('-24');
  await page.getByLabel('Sounds at').blur();
  await expect(page.getByTestId('reading')).toContainText('outside the guitar');
  await page.getByRole('button', { name: 'take back' }).click();
  await expect(page.getByText('None. The file itself is never changed')).toBeVisible();
  await expect(page.getByTestId('reading')).not.toContainText('outside the guitar');
  await page.getByLabel('Capo at fret').fill('99');
  await page.getByLabel('Capo at fret').blur();
  await expect(page.getByRole('alert')).toContainText('whole number from 0 to 12');
  await page.getByLabel('Capo at fret').fill('3');
  await page.getByLabel('Capo at fret').blur();
  await expect(corrections(page)).toHaveText([/capo 3/]);
});

test('a file with a note below the guitar is offered at pitches that fit, each with its price', async ({
  page,
}) => {
  const low = documentXml([bar([48, 55, 60, 64]), bar([36, 55, 60, 64]), bar([48, 55, 60, 64])]);
  await page.goto('/');
  await page.waitForURL('**/shelf');
  await openFile(page, 'low.musicxml', low);
  await expect(page.getByTestId('findings')).toContainText('outside the guitar, which reaches from E2');
  await scoreTab(page);
  await page.getByRole('button', { name: 'Compare transpositions', exact: true }).click();
  const rows = page.getByTestId('transpositions').getByRole('row');
  await expect(rows.first()).toHaveText(/file.*1 outside.*now/);
  await expect(rows.nth(1)).toHaveText(/\+4.*all fit.*\d+\.\d.*Take/);
  await page.getByRole('button', { name: 'Take +4' }).click();
  await expect(corrections(page)).toHaveText([/transposed by \+4 semitones/]);
  await expect(page.getByTestId('reading')).not.toContainText('outside the guitar');
  await page.getByRole('tab', { name: 'Note' }).click();
  await expect(page.getByText('Everything can be played and sounds as long as it is written.')).toBeVisible();
});

test('what cannot be corrected is said, and nothing changes', async ({ page }) => {
  await importAndOpen(page, 'room.musicxml');
  await note(page, 'n1').click();
  await page.keyboard.press('Shift+E');
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
  await expect(page.getByTestId('report')).toContainText('1 mark was carried over');
  await expect(page.getByTestId('waiting-marks')).toHaveText(/Bar 2, E4: finger 2/);
  await page
    .getByLabel('Newer file')
    .setInputFiles(file('other.musicxml', documentXml([bar([45, 46, 49, 51])])));
  await expect(page.getByRole('alert')).toContainText('another piece');
});

test('marks whose note is not certain are taken or dropped, one by one or all; the newer file is one step to undo', async ({
  page,
}) => {
  await openFile(page, 'old.musicxml', OLD);
  for (const [uid, finger] of [
    ['n2', '3'],
    ['n3', '2'],
    ['n5', '4'],
  ] as const) {
    await note(page, uid).click();
    await page.keyboard.press(finger);
  }
  await saved(page);
  await scoreTab(page);
  // One note of the first bar gets another length, and the next begins later.
  const changed = [60, 62, 64, 65].map((midi, k) => noteXml({ midi, onset: 0, length: [2, 3, 1, 2][k]! }));
  const newer = documentXml([changed.join(''), bar([67, 65, 64, 62])]);
  await page.getByLabel('Newer file').setInputFiles(file('newer.musicxml', newer));
  await untilPlanned(page);
  await page.getByRole('button', { name: /Version 2 of the file: .*, 2 to check/ }).click();
  const checks = page.getByTestId('to-check').getByRole('listitem');
  await expect(checks).toHaveText([
    /Bar 1, D4: finger 3; it has another length/,
    /Bar 1, E4: finger 2; it stands elsewhere in the bar/,
  ]);
  await checks.first().getByRole('button', { name: 'Take' }).click();
  await expect(checks).toHaveCount(1);
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(2);
  await checks.first().getByRole('button', { name: 'Drop' }).click();
  await expect(checks).toHaveCount(0);
  for (let k = 0; k < 2; k++) await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await page.getByRole('button', { name: 'Take all 2' }).click();
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(3);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(checks).toHaveCount(2);
  await page.getByRole('button', { name: 'Drop all' }).click();
  await expect(checks).toHaveCount(0);
  await saved(page);
  await page.getByRole('button', { name: 'Undo: back to version 1' }).click();
  await untilPlanned(page);
  for (const uid of ['n2', 'n3', 'n5'])
    await expect(mark(page, 'finger', uid)).toHaveAttribute('data-state', 'ink');
  await expect(page.getByText('Version 2 of the file')).toHaveCount(0);
});

test('the report of a newer file stays until it is put away', async ({ page }) => {
  await openFile(page, 'old.musicxml', OLD);
  await scoreTab(page);
  await page.getByLabel('Newer file').setInputFiles(file('newer.musicxml', NEWER));
  await untilPlanned(page);
  await page.reload();
  await untilPlanned(page);
  await scoreTab(page);
  await page.getByRole('button', { name: 'Put away' }).click();
  await expect(page.getByTestId('report')).toHaveCount(0);
  await page.reload();
  await untilPlanned(page);
  await scoreTab(page);
  await expect(page.getByTestId('report')).toHaveCount(0);
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
    'Bar 2, voice 1 (line 2) has 5 beats where the metre asks for 4',
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
  await expect(strip.getByRole('button').nth(2)).toHaveAccessibleName(/G\/B$/);
  await saved(page);
  await page.reload();
  await expect(strip.getByRole('button').nth(2)).toHaveAccessibleName(/G\/B$/);
  await strip.getByRole('button').nth(2).click();
  await page.getByRole('button', { name: 'Take the chord back' }).click();
  await expect(strip.getByRole('button').nth(2)).not.toHaveAccessibleName(/G\/B/);
  await expect(page.getByText('Hardest:')).toBeVisible();
  await expect(page.getByTestId('techniques').getByRole('listitem').first()).toBeVisible();
});

test('the survey proposes drills with the bars that ask for them', async ({ page }) => {
  await page.getByRole('link', { name: 'Survey of Rain on Tin' }).click();
  const drills = page.getByTestId('drills');
  await expect(drills.getByRole('listitem').first()).toContainText(/bars? \d/);
  await drills.getByRole('link', { name: 'Tremolo' }).click();
  await expect(page).toHaveURL(/kind=tremolo&order=pami/);
  await expect(page.getByTestId('drill-counts')).toBeVisible();
});

test('a bar of the survey leads to its place on the desk, and the desk back to the bar', async ({ page }) => {
  await page.getByRole('link', { name: 'Survey of Mill Bridge Dance' }).click();
  const bars = page.getByTestId('form-strip').getByRole('button');
  await bars.nth(5).click();
  await page.getByRole('link', { name: 'Bar 5 on the desk' }).click();
  await expect(page.getByText('bar 5', { exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'Survey', exact: true }).click();
  await expect(bars.nth(5)).toHaveAttribute('aria-pressed', 'true');
  // The strip is in proportion: its bars lie side by side from edge to edge.
  const boxes = await bars.evaluateAll((all) =>
    all.map((one) => one.getBoundingClientRect()).map(({ left, right }) => ({ left, right })),
  );
  for (const [k, { left }] of boxes.entries()) if (k > 0) expect(left).toBeCloseTo(boxes[k - 1]!.right, 0);
});
