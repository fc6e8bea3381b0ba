/** The desk and the shelf as somebody meets them who does not see them: the accessibility tree, read. */
import AxeBuilder from '@axe-core/playwright';
import { expect, type Page, test } from '@playwright/test';
import { importAndOpen, note, signIn } from './steps';

test.beforeEach(async ({ page }) => signIn(page));

/** Every thing that can be used or read, as "role: name". */
async function treeOf(page: Page): Promise<readonly { readonly role: string; readonly name: string }[]> {
  const client = await page.context().newCDPSession(page);
  const { nodes } = await client.send('Accessibility.getFullAXTree');
  return nodes
    .filter(({ ignored }) => !ignored)
    .map(({ role, name }) => ({ role: String(role?.value ?? ''), name: String(name?.value ?? '') }));
}

const USED = ['button', 'link', 'tab', 'textbox', 'searchbox', 'combobox', 'checkbox', 'radio', 'dialog'];

/** What nobody could tell from its neighbours: without a name, or with a sign for one. */
const unnamed = (tree: Awaited<ReturnType<typeof treeOf>>) =>
  tree.filter(({ role, name }) => USED.includes(role) && !/[a-z0-9]{1,}/i.test(name));

const seriousOf = async (page: Page) =>
  (await new AxeBuilder({ page }).analyze()).violations.filter(({ impact }) =>
    ['serious', 'critical'].includes(impact ?? ''),
  );

test('the shelf: pieces under their names, how to find, sort, import and save them', async ({ page }) => {
  const tree = await treeOf(page);
  expect(unnamed(tree)).toEqual([]);
  const names = (role: string) => tree.filter((one) => one.role === role).map(({ name }) => name);
  expect(names('heading')).toContain('Shelf');
  expect(names('heading')).toContain('Cellar Song');
  expect(names('searchbox')).toEqual(['Find a piece']);
  expect(names('combobox')).toContain('Order');
  expect(names('button')).toEqual(expect.arrayContaining(['Import scores', 'Sign out']));
  expect(names('link').some((name) => /Cellar Song/.test(name))).toBe(true);
  expect(names('main')).toHaveLength(1);
  expect(await seriousOf(page)).toEqual([]);
});

test('the desk: regions, notes with what they are, tabs, prices, and what a key has done', async ({
  page,
}) => {
  await importAndOpen(page, 'heard.musicxml');
  await note(page, 'n1').click();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByTestId('spoken')).toHaveText(/^D, finger \d, string \d, pencil, bar 1$/);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('spoken')).toHaveText(/, ink, bar 1$/);
  await expect(page.locator('[data-testid=candidates][data-exact=yes]')).toBeVisible();
  const tree = await treeOf(page);
  expect(unnamed(tree)).toEqual([]);
  const names = (role: string) => tree.filter((one) => one.role === role).map(({ name }) => name);
  expect(names('main')).toHaveLength(1);
  expect(names('complementary')).toEqual(['Note and findings']);
  expect(names('heading')).toEqual(expect.arrayContaining(['D', 'Findings', 'Whole piece']));
  expect(names('tab')).toEqual(['Note', 'Steps', 'Hand', 'Strokes', 'Score']);
  expect(names('button').filter((name) => /^(high )?[A-G], bar 1$/.test(name))).toHaveLength(8);
  expect(names('button').filter((name) => /^low [A-G], bar 1$/.test(name))).toHaveLength(2);
  expect(names('button').filter((name) => /^finger \d, string \d, /.test(name)).length).toBeGreaterThan(2);
  expect(await seriousOf(page)).toEqual([]);
});

test('the tabs have the arrows, and every panel can be reached and left by keys', async ({ page }) => {
  await importAndOpen(page, 'tabs.musicxml');
  await page.getByRole('tab', { name: 'Note' }).focus();
  for (const name of ['Steps', 'Hand', 'Strokes', 'Score']) {
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('tab', { name })).toBeFocused();
    await expect(page.getByRole('tab', { name })).toHaveAttribute('aria-selected', 'true');
    expect(unnamed(await treeOf(page)), name).toEqual([]);
  }
  await page.keyboard.press('Home');
  await expect(page.getByRole('tab', { name: 'Note' })).toBeFocused();
});
