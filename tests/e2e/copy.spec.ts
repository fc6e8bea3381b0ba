/** The student's copy: seen page by page, marked more or less, saved, handed out and compared. */
import { readFileSync } from 'node:fs';
import { unzipSync } from 'fflate';
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { importAndOpen, note, saved, signIn } from './steps';

async function toCopy(page: Page, name: string) {
  await signIn(page);
  await importAndOpen(page, `${name}.musicxml`);
  await page.keyboard.press('Control+p');
  await expect(page.getByRole('img', { name: 'Page 1 of 1' })).toBeVisible();
}

const marks = (page: Page) => page.getByTestId('pages').locator('[data-mark]');
const count = async (page: Page) =>
  Number(/^\d+/.exec((await page.getByTestId('mark-count').textContent())!)![0]);

test('one key leads from the desk to the copy; its marks are those of the density, at once', async ({
  page,
}) => {
  await toCopy(page, 'orchard wall');
  await page.getByRole('button', { name: 'Every note' }).click();
  const full = await count(page);
  await expect(marks(page)).toHaveCount(full);
  await page.getByRole('button', { name: 'Fewest' }).click();
  await expect.poll(() => count(page)).toBeLessThan(full / 2);
  await expect(marks(page)).toHaveCount(await count(page));
  await expect(page.getByTestId('pages')).toContainText('Where nothing is printed');
  // The choice belongs to the edition: the desk has it, too.
  await saved(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Fewest' })).toHaveAttribute('aria-pressed', 'true');
});

test('a bar has marks of its own, a remark stands under the music, and both are undone', async ({ page }) => {
  await toCopy(page, 'lower orchard');
  await page.getByRole('button', { name: 'Fewest' }).click();
  const few = await count(page);
  await page.getByLabel('Other marks in bars').fill('1');
  await page.getByRole('button', { name: 'Set', exact: true }).click();
  await expect.poll(() => count(page)).toBeGreaterThan(few);
  await page.getByLabel('Bar', { exact: true }).fill('1');
  await page.getByLabel('Remark', { exact: true }).fill('Let the bass ring into the rest.');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByTestId('pages')).toContainText('Let the bass ring into the rest.');
  await page.getByLabel('Bar', { exact: true }).fill('77');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('alert')).toContainText('There is no bar 77');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByTestId('pages')).not.toContainText('Let the bass ring');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(() => count(page)).toBe(few);
});

test('what is included is seen at once, and the paper is another', async ({ page }) => {
  await toCopy(page, 'upper orchard');
  const pages = page.getByTestId('pages');
  await page.getByLabel('Tablature under the staff').check();
  await expect(pages.locator('[data-fret]').first()).toBeVisible();
  await page.getByLabel('Hard places, step by step').check();
  await expect(pages).toContainText('Hard places, step by step');
  await expect(pages.locator('[data-part=board]').first()).toBeVisible();
  await expect(pages).toContainText(/place \d on string/);
  await page.getByLabel('Held').selectOption('landscape');
  await expect
    .poll(async () => {
      const box = await page.getByRole('img', { name: /^Page 1/ }).boundingBox();
      return box!.width > box!.height;
    })
    .toBe(true);
});

test('a copy is saved as PDF, handed out, fetched again and compared with what came after', async ({
  page,
}) => {
  await toCopy(page, 'orchard gate');
  const pdf = page.waitForEvent('download');
  await page.keyboard.press('Control+p');
  const file = await pdf;
  expect(file.suggestedFilename()).toMatch(/^orchard gate, every note, .*\.pdf$/);
  expect(
    readFileSync(await file.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');

  await page.getByLabel('For whom').fill('Thursday');
  const handed = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Hand out' }).click();
  const given = readFileSync(await (await handed).path());
  await expect(page.getByText('for Thursday')).toBeVisible();
  await page.getByRole('button', { name: 'what has changed' }).click();
  await expect(page.getByTestId('differences')).toContainText('printed the same');

  await page.getByRole('link', { name: 'To the desk' }).click();
  await note(page, 'n3').click();
  await page.keyboard.press('i');
  await page.keyboard.press('a');
  await saved(page);
  await page.keyboard.press('Control+p');
  await page.getByRole('button', { name: 'what has changed' }).click();
  await expect(page.getByTestId('differences')).toContainText(/bar 1: [pim] → a/);
  await expect(page.locator('[data-changed=n3]')).toBeVisible();
  const again = page.waitForEvent('download');
  await page.getByRole('button', { name: 'as it was' }).click();
  expect(Buffer.compare(readFileSync(await (await again).path()), given)).toBe(0);
});

test('other files come with their names, and nothing on the page is out of reach', async ({ page }) => {
  await toCopy(page, 'orchard lane');
  await page.getByLabel('Kind of file').selectOption('abc');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  expect((await download).suggestedFilename()).toMatch(/\.abc$/);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]?.html])).toEqual([]);
});

test('what the shelf shows is saved as one zip, with its progress', async ({ page }) => {
  await signIn(page);
  await page.getByLabel('Find a piece').fill('e');
  await expect(page.getByText(/^[2-9] of|^\d\d of/)).toBeVisible();
  const shown = await page.locator('article').count();
  await page.getByRole('button', { name: 'Save these' }).click();
  await page.getByLabel('Of each piece').selectOption('notes');
  const download = page.waitForEvent('download', { timeout: 80_000 });
  await page.getByRole('button', { name: /as one zip$/ }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  const zip = unzipSync(readFileSync(await (await download).path()));
  expect(Object.keys(zip)).toHaveLength(shown);
  for (const [name, content] of Object.entries(zip)) {
    expect(name).toMatch(/\.csv$/);
    expect(new TextDecoder().decode(content)).toMatch(/^bar,beat,voice/);
  }
});

test('a copy has all marks, those that are decided, or the ink alone, and so have its files', async ({
  page,
}) => {
  await toCopy(page, 'ink alone');
  await page.keyboard.press('Escape');
  await note(page, 'n2').click();
  await page.keyboard.press('Enter');
  await saved(page);
  await page.keyboard.press('Control+p');
  await page.getByRole('button', { name: 'Every note' }).click();
  await expect.poll(() => count(page)).toBeGreaterThan(10);
  await page.getByLabel('Whose marks').selectOption('ink');
  // Finger and letter of the one note, and its string where that is said.
  await expect.poll(() => count(page)).toBeLessThanOrEqual(3);
  expect(await count(page)).toBeGreaterThanOrEqual(2);
  const [saving] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('region', { name: 'Other files' }).getByRole('button', { name: 'Save' }).click(),
  ]);
  const file = readFileSync(await saving.path(), 'utf8');
  expect(file.match(/<fingering>/g)).toHaveLength(1);
});
