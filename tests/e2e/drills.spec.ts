/** The drill bench: chosen by controls or by its link, put on the shelf like a piece. */
import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
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
  await page.getByLabel('Beats in').selectOption('2+2+2');
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

test('a drill is stepped through, by keys and by buttons, hand by hand', async ({ page }) => {
  await page.goto('/drills?kind=thumb-levels&level=four');
  await expect(page.getByTestId('drill-counts')).toContainText('notes');
  await page.keyboard.press('j');
  const walk = page.getByTestId('walk');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 1');
  await expect(walk.getByTestId('walk-right')).toContainText('strike p on 6');
  await page.keyboard.press('j');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 1.25');
  await expect(walk.getByTestId('walk-left')).toContainText('1 stays where it lies');
  await expect(walk.getByTestId('fretboard')).toBeVisible();
  await walk.getByLabel('Hands').selectOption('right');
  await expect(walk.getByTestId('walk-left')).toHaveCount(0);
  // Round the bar: one step back from its beginning is its end.
  await walk.getByLabel('Goes round').selectOption('bar');
  await page.keyboard.press(';');
  await page.keyboard.press(';');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 4.75');
});

test('two right hands of a triad are counted side by side; a hand that is too small is told so', async ({
  page,
}) => {
  await page.goto('/drills?kind=triads&root=G');
  const counts = page.getByTestId('drill-counts');
  await expect(counts).toContainText(/i m in turn: crossings accepted: \d+ notes.* 4 crossings/);
  await expect(counts).toContainText(/crossings avoided: \d+ notes.* 1 crossing,/);
  await page.getByLabel('Octaves').selectOption('3');
  await page.getByRole('combobox', { name: 'For', exact: true }).selectOption('child-half');
  await expect(page.getByTestId('too-much')).toContainText('this hand plays up to 9');
});

test('a row of chords is typed; one that is not known is refused and changes nothing', async ({ page }) => {
  await page.goto('/drills?kind=chord-patterns');
  await expect(page.getByTestId('drill-counts')).toContainText('notes');
  await page.getByLabel('Chords, typed').fill('C F G7 C');
  await page.getByLabel('Chords, typed').press('Enter');
  await expect(page.getByRole('heading', { name: 'Chords under a pattern: C F G7 C' })).toBeVisible();
  await page.getByLabel('Chords, typed').fill('C H');
  await page.getByLabel('Chords, typed').press('Enter');
  await expect(page.getByRole('alert')).toContainText('“C H” is not known');
  await expect(page.getByRole('heading', { name: 'Chords under a pattern: C F G7 C' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Chords under a pattern: C F G7 C' })).toBeVisible();
});

test('a place of a piece becomes its drills, with the bars that are chosen', async ({ page }) => {
  await page
    .getByRole('link', { name: /Late Ferry/ })
    .first()
    .click();
  await untilPlanned(page);
  await page.getByRole('link', { name: 'Survey' }).click();
  await page.getByRole('link', { name: 'Drills of this place' }).click();
  await expect(page.getByRole('heading', { name: /Changes of Late Ferry/ })).toBeVisible({ timeout: 20_000 });
  await page.getByLabel('From bar').selectOption({ label: '5' });
  await page.getByLabel('to bar').selectOption({ label: '8' });
  await page.getByRole('button', { name: 'Blocks' }).click();
  await expect(page.getByRole('heading', { name: 'Blocks of Late Ferry, bars 5 to 8' })).toBeVisible();
  await expect(page.getByTestId('drill-counts')).toContainText('notes');
  // The link makes it again.
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Blocks of Late Ferry, bars 5 to 8' })).toBeVisible({
    timeout: 20_000,
  });
  await expect(page.getByTestId('drill-counts')).toContainText('notes');
  // A kind that pieces ask for says which.
  await page.getByRole('button', { name: 'Barres in steps' }).click();
  await expect(page.getByTestId('drill-needed')).toContainText('barre');
});

test('drills in a row are a routine with minutes and tempos, on one page', async ({ page }) => {
  await page.goto('/drills?kind=planting');
  await expect(page.getByTestId('drill-counts')).toContainText('notes');
  await page.getByRole('combobox', { name: 'Into' }).selectOption('');
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText(/1 drill\./)).toBeVisible();
  await page.getByRole('button', { name: 'Scales' }).click();
  await expect(page.getByRole('heading', { name: 'Scales' })).toBeVisible();
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText(/2 drills\./)).toBeVisible();
  await page.getByRole('link', { name: 'All routines' }).click();
  await expect(page.getByTestId('routine-minutes')).toHaveText('10 minutes in all');
  await page.getByLabel('Minutes').first().fill('8');
  await page.getByLabel('Minutes').first().press('Tab');
  await expect(page.getByTestId('routine-minutes')).toHaveText('13 minutes in all');
  await page.getByRole('button', { name: 'Later' }).first().click();
  await expect(page.getByRole('listitem').first()).toContainText('1. Scales');
  // A ladder that goes down is refused with its field named.
  await page.getByLabel('From ♩').first().fill('200');
  await page.getByLabel('From ♩').first().press('Tab');
  await expect(page.getByRole('alert')).toContainText('the ladder must not go down');
  const [page1] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save the page (PDF)' }).click(),
  ]);
  expect(readFileSync(await page1.path(), 'latin1')).toMatch(/^%PDF/);
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]?.html])).toEqual([]);
});
