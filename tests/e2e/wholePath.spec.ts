/** The whole path with a file that is not in the demo: import, edit three notes, reload, export, read back. */
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import { readMusicXmlText } from '../../src/core/formats/musicxml/bytes';
import { readScore } from '../../src/core/formats/musicxml/readScore';
import type { PrintedMarks } from '../../src/core/score/model';
import { importAndOpen, mark, note, saved, scoreFile, signIn, untilPlanned } from './steps';

function printedIn(path: string): ReadonlyMap<string, PrintedMarks> {
  const text = readMusicXmlText(readFileSync(path));
  if (!text.ok) throw new Error(text.error.code);
  const document = readScore(text.value.text);
  if (!document.ok) throw new Error(document.error.code);
  return new Map(document.value.score.notes.map((one) => [one.uid, one.printed]));
}

test('import, edit three notes, reload, export, read the export back', async ({ page }) => {
  await signIn(page);
  await importAndOpen(page, 'garden gate.musicxml');

  // Ten notes, each with a finger, each plucked one with a letter, all in pencil.
  await expect(page.locator('[data-mark=finger][data-state=pencil]')).toHaveCount(10);
  await expect(page.locator('[data-mark=pluck][data-state=pencil]')).toHaveCount(10);

  // Finger and string of the first melody note by two keys, a letter on the second, ink on the bass.
  await note(page, 'n1').click();
  await page.keyboard.press('w');
  await page.keyboard.press('4');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'ink');
  await expect(mark(page, 'finger', 'n1')).toContainText('4');
  await expect(mark(page, 'string', 'n1')).toContainText('2');
  await note(page, 'n2').click();
  await page.keyboard.press('a');
  await expect(mark(page, 'pluck', 'n2')).toHaveAttribute('data-state', 'ink');
  await note(page, 'n9').click();
  await expect(page.getByTestId('note-state')).toHaveText('pencil');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('note-state')).toHaveText('ink');
  const bass = await mark(page, 'finger', 'n9').textContent();
  await saved(page);

  await page.reload();
  await untilPlanned(page);
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(2);
  await expect(mark(page, 'finger', 'n1')).toContainText('4');
  await expect(mark(page, 'pluck', 'n2')).toContainText('a');

  const plain = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save fingered score' }).click();
  const plainFile = await (await plain).path();
  const printed = printedIn(plainFile);
  expect(printed.get('n1')).toMatchObject({ finger: 4, string: 2 });
  expect(printed.get('n2')).toMatchObject({ pluck: 'a' });
  expect(String(printed.get('n9')!.finger)).toBe(bass!.trim());
  expect([...printed.values()].every((one) => one.finger !== null && one.string !== null)).toBe(true);

  // What was imported is still there, character for character, around the insertions.
  const out = readFileSync(plainFile, 'utf8');
  const original = scoreFile('').buffer.toString('utf8');
  expect(
    out
      .replace(/<notations><technical>.*?<\/technical><\/notations>/g, '')
      .replace(/<direction placement="above">.*?<\/direction>/g, ''),
  ).toBe(original);

  const compressed = page.waitForEvent('download');
  await page.getByRole('button', { name: 'compressed' }).click();
  const mxl = await (await compressed).path();
  expect(Object.keys(unzipSync(readFileSync(mxl)))).toContain('META-INF/container.xml');
  expect(printedIn(mxl)).toEqual(printed);

  // On the shelf it counts as touched.
  await page.getByRole('link', { name: 'To the shelf' }).click();
  await expect(page.getByRole('link', { name: /garden gate/ }).first()).toContainText('part inked');
});

test('a fingered file comes back as printed marks that look different from pencil and ink', async ({
  page,
}) => {
  await signIn(page);
  await importAndOpen(page, 'with fingering.musicxml', [
    {
      midi: 60,
      onset: 0,
      length: 2,
      extra: '<notations><technical><fingering>2</fingering></technical></notations>',
    },
    { midi: 62, onset: 2, length: 2 },
    { midi: 64, onset: 4, length: 2 },
  ]);
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'printed');
  await note(page, 'n2').click();
  await page.keyboard.press('Enter');
  const look = (uid: string) =>
    mark(page, 'finger', uid).evaluate((group) => [
      getComputedStyle(group).fontWeight,
      group.querySelectorAll('path').length,
    ]);
  const [printed, ink, pencil] = [await look('n1'), await look('n2'), await look('n3')];
  expect(new Set([printed, ink, pencil].map((one) => one.join())).size).toBe(3);
});

test('a file asked for before the planner has the piece comes when it has it', async ({ page }) => {
  await signIn(page);
  await importAndOpen(page, 'early gate.musicxml');
  // The score of the second visit comes late: its page is stored and shown at once.
  await page.route('**/api/versions/*/document', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue();
  });
  await page.reload();
  await expect(page.locator('[data-mark=finger]').first()).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save fingered score' }).click();
  const file = await (await download).path();
  expect([...printedIn(file).values()].every((one) => one.finger !== null)).toBe(true);
});

test('a piece goes its whole way without a mouse: imported, fingered, decided, compared, exported', async ({
  page,
}) => {
  await signIn(page);
  /** Goes on with Tab until what is wanted has the focus. */
  const tabTo = async (name: RegExp, most = 60) => {
    for (let k = 0; k < most; k++) {
      await page.keyboard.press('Tab');
      const words = await page.evaluate(() => {
        const at = document.activeElement;
        return at?.getAttribute('aria-label') ?? at?.textContent?.trim() ?? '';
      });
      if (name.test(words)) return;
    }
    throw new Error(`the Tab key does not come to ${name}`);
  };
  await tabTo(/^Import scores/);
  // A page that has just come may not hear its keys yet.
  await expect(async () => {
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser', { timeout: 2000 }),
      page.keyboard.press('Enter'),
    ]);
    await chooser.setFiles(scoreFile('by keys alone.musicxml'));
  }).toPass();
  await expect(page.getByRole('link', { name: 'open on the desk' })).toBeVisible();
  await tabTo(/open on the desk/);
  await page.keyboard.press('Enter');
  await untilPlanned(page);
  // Decided: one note its own way, the bar as it stands. One begins at the bass, the tune is above it.
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('4');
  await expect(mark(page, 'finger', 'n2')).toHaveText('4');
  await page.keyboard.press('b');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(10);
  await saved(page);
  // Compared: the state gets a name, a note is changed, the difference is named.
  await page.keyboard.press('Alt+5');
  await page.keyboard.press('Escape');
  const name = page.getByLabel('Name of this state');
  await expect(name).toBeVisible();
  await tabTo(/^Name of this state/, 120);
  await page.keyboard.type('as decided');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('milestones')).toContainText('as decided');
  await tabTo(/^Compare$/);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('compared')).toContainText('Nothing has changed since “as decided”');
  // Exported, by way of the copy.
  await page.keyboard.press('Control+p');
  await expect(page.getByRole('img', { name: 'Page 1 of 1' })).toBeVisible();
  const [pdf] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Control+p')]);
  expect(readFileSync(await pdf.path(), 'latin1')).toMatch(/^%PDF/);
});
