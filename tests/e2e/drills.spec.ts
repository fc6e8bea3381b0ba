/** The drill bench: chosen by controls or by its link, put on the shelf like a piece. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { mark, signIn, untilPlanned } from './steps';

test.beforeEach(async ({ page }) => signIn(page));

test('a drill is set anew at once, counted, and made again by its link', async ({ page }) => {
  await page.getByRole('link', { name: 'Drill bench' }).click();
  await page.getByRole('button', { name: 'Finger pairs' }).click();
  await expect(page.getByTestId('drill-counts')).toContainText('notes');
  await page.getByLabel('Pair').selectOption('34');
  await expect(page.getByRole('heading', { name: 'Finger pairs: 3 4' })).toBeVisible();
  await expect(mark(page, 'finger', 'n1')).toHaveText('3');
  await expect(mark(page, 'finger', 'n2')).toHaveText('4');
  await expect(page.locator('[data-mark=finger][data-state=ink]').first()).toBeVisible();
  const link = page.url();
  expect(link).toContain('pair=34');
  await page.goto('/shelf');
  await page.goto(link);
  await expect(page.getByRole('heading', { name: 'Finger pairs: 3 4' })).toBeVisible();
  await expect(mark(page, 'finger', 'n2')).toHaveText('4');
  // What a link asks for that there is not is as usual.
  await page.goto('/drills?kind=finger-pairs&pair=99');
  await expect(page.getByRole('heading', { name: 'Finger pairs', exact: true })).toBeVisible();
});

test('a metronome goes with the metre of the drill, faster step by step', async ({ page }) => {
  await page.goto('/drills?kind=tremolo&order=pmi');
  await expect(page.getByTestId('tempo')).toHaveText('♩ = 60');
  await expect(page.getByTestId('beats').locator('span.rounded-full')).toHaveCount(6);
  await expect(page.getByTestId('beats').locator('.size-3')).toHaveCount(2);
  await page.getByLabel('Accents').selectOption('2+2+2');
  await expect(page.getByTestId('beats').locator('.size-3')).toHaveCount(3);
  await page.getByRole('button', { name: 'Faster' }).click();
  await expect(page.getByTestId('tempo')).toHaveText('♩ = 72');
  await page.getByRole('button', { name: 'Start' }).click();
  const lit = page.getByTestId('beats').locator('.bg-base-content');
  await expect(lit).toHaveCount(1);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(lit).toHaveCount(0);
});

test('each kind has its notation, its cues and no accessibility violation', async ({ page }) => {
  await page.goto('/drills');
  const kinds = page.getByRole('navigation', { name: 'Drills' }).getByRole('button');
  const count = await kinds.count();
  expect(count).toBeGreaterThanOrEqual(7);
  for (let k = 0; k < count; k++) {
    await kinds.nth(k).click();
    await expect(page.getByTestId('drill-counts')).toContainText('notes');
    await expect(page.locator('[data-mark=finger]').first()).toBeVisible();
  }
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]?.html])).toEqual([]);
});

test('a drill on the shelf is a piece with its fingering decided', async ({ page }) => {
  await page.goto('/drills?kind=slur-pairs&pair=13');
  await expect(page.getByTestId('drill-counts')).toBeVisible();
  await page.getByRole('button', { name: 'Put on the shelf' }).click();
  await page.waitForURL('**/desk/**');
  await untilPlanned(page);
  await expect(page.getByRole('heading', { name: 'Slurs by pair: 1 3' })).toBeVisible();
  await expect(mark(page, 'finger', 'n2')).toHaveAttribute('data-state', 'ink');
  await expect(mark(page, 'finger', 'n2')).toHaveText('3');
});
