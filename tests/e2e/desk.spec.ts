import { expect, test } from '@playwright/test';
import { importAndOpen, mark, note, saved, signIn, untilPlanned } from './steps';

test.beforeEach(async ({ page }) => {
  await signIn(page);
});

test('one key changes a note, the rest is planned around it, undo and redo take it back and again', async ({
  page,
}) => {
  await importAndOpen(page, 'undo.musicxml');
  await note(page, 'n3').click();
  const before = await mark(page, 'finger', 'n3').textContent();
  await page.keyboard.press('3');
  await expect(mark(page, 'finger', 'n3')).toContainText('3');
  await expect(mark(page, 'finger', 'n3')).toHaveAttribute('data-state', 'ink');
  await page.keyboard.press('4');
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'finger', 'n3')).toContainText('3');
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'finger', 'n3')).toHaveAttribute('data-state', 'pencil');
  await expect(mark(page, 'finger', 'n3')).toHaveText(before!);
  await page.keyboard.press('Control+y');
  await page.keyboard.press('Control+Shift+Z');
  await expect(mark(page, 'finger', 'n3')).toContainText('4');
  await page.keyboard.press('Backspace');
  await expect(mark(page, 'finger', 'n3')).toHaveAttribute('data-state', 'pencil');
  await saved(page);
});

test('arrows move through moments and notes; the panel follows', async ({ page }) => {
  await importAndOpen(page, 'arrows.musicxml');
  await note(page, 'n1').click();
  const selected = () => page.locator('[data-note][aria-pressed=true]').getAttribute('data-note');
  await page.keyboard.press('ArrowRight');
  expect(await selected()).toBe('n2');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowDown');
  expect(await selected()).toBe('n9');
  await expect(page.getByRole('heading', { name: 'low C' })).toBeVisible();
  await page.keyboard.press('ArrowUp');
  expect(await selected()).toBe('n1');
});

test('candidates are ranked by their exact price and chosen by a click', async ({ page }) => {
  await importAndOpen(page, 'prices.musicxml');
  await note(page, 'n3').click();
  const rows = page.getByTestId('candidates').getByRole('button');
  await expect(rows.first()).toHaveAttribute('aria-label', /best$/);
  // What the prices are at least stands there at once; a moment later what they are.
  await expect(page.getByTestId('candidates')).toHaveAttribute('data-exact', 'yes');
  const prices = (await rows.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')!))).map(
    (label) => Number(/\+([\d.]+)$/.exec(label)?.[1] ?? 0),
  );
  expect(prices).toEqual([...prices].sort((a, b) => a - b));
  expect(prices.length).toBeGreaterThan(3);
  const left = async () => Number(/Effort ([\d.]+)/.exec((await page.locator('aside').textContent())!)![1]);
  const best = await left();
  await rows.nth(2).click();
  await expect(page.getByTestId('note-state')).toHaveText('ink');
  // Both hands cost exactly what was shown, as soon as the plan around the ink is there.
  await expect.poll(async () => Math.round(10 * ((await left()) - best))).toBe(Math.round(10 * prices[2]!));
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('note-state')).toHaveText('pencil');
  await expect.poll(left).toBe(best);
});

test('a decision that older ink makes impossible frees it, in one line with a way back', async ({ page }) => {
  await importAndOpen(page, 'clash.musicxml', [
    { midi: 48, onset: 0, length: 4, voice: 2 },
    { midi: 52, onset: 0, length: 4 },
    { midi: 60, onset: 4, length: 2 },
  ]);
  await note(page, 'n1').click();
  await page.keyboard.press('2');
  await note(page, 'n2').click();
  await page.keyboard.press('2');
  await expect(page.getByRole('alert')).toContainText('the ink of low C in bar 1 cannot be played: released');
  await expect(mark(page, 'finger', 'n2')).toContainText('2');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'pencil');
  await expect(mark(page, 'finger', 'n3')).toBeVisible();
  await expect(page.getByText('Everything can be played')).toBeVisible();
  // One step back gives the older ink again, and the contradiction is named with its notes.
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'ink');
  await expect(page.getByTestId('findings')).toContainText('no hand can do together');
});

test('what cannot be sent is kept in the browser and sent later', async ({ page, context }) => {
  await importAndOpen(page, 'offline.musicxml');
  await note(page, 'n1').click();
  await context.route('**/api/editions/**', (route) => route.abort());
  await page.keyboard.press('3');
  await expect(page.getByTestId('save-state')).toHaveText('kept in this browser, 1 to send');
  // No view turns into an error page: this one stays, and says what waits.
  await page.getByRole('link', { name: 'Survey' }).click();
  await expect(page.getByTestId('no-line')).toContainText('1 change waits here');
  await expect(mark(page, 'finger', 'n1')).toContainText('3');
  await page.reload();
  await untilPlanned(page);
  await expect(mark(page, 'finger', 'n1')).toContainText('3');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'ink');
  await context.unroute('**/api/editions/**');
  await saved(page);
  await page.reload();
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'ink');
});

test('a change that the server will never take is set aside and told; what comes after it is saved', async ({
  page,
}) => {
  await importAndOpen(page, 'refused.musicxml');
  // As a change that no server can read would be answered, as long as this server cannot.
  let isDeaf = true;
  await page.route('**/api/editions/*/gestures', async (route) => {
    const { gestures } = route.request().postDataJSON() as {
      gestures: { operations: { after: unknown }[] }[];
    };
    const isBad = isDeaf && gestures.some(({ operations }) => operations.some(({ after }) => after === 2));
    await (isBad ? route.fulfill({ status: 400, json: { message: 'unreadable' } }) : route.continue());
  });
  await note(page, 'n1').click();
  await page.keyboard.press('2');
  await expect(page.getByRole('alert')).toContainText('could not be saved and was taken back');
  await note(page, 'n4').click();
  await page.keyboard.press('4');
  await saved(page);
  await expect(mark(page, 'finger', 'n4')).toHaveAttribute('data-state', 'ink');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'pencil');
  // Made again it is set aside again; let go it stays away; made again where it is understood, it stays.
  await page.getByRole('button', { name: 'Make it again' }).click();
  await expect(page.getByTestId('set-aside')).toContainText('One of your last changes');
  isDeaf = false;
  await page.getByRole('button', { name: 'Make it again' }).click();
  await expect(page.getByTestId('set-aside')).toHaveCount(0);
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'ink');
  await expect(mark(page, 'finger', 'n4')).toHaveAttribute('data-state', 'ink');
});

test('two desks on one piece: the later one takes in what it had not seen', async ({ page, context }) => {
  await importAndOpen(page, 'two desks.musicxml');
  const other = await context.newPage();
  await other.goto(page.url());
  await untilPlanned(other);
  await note(page, 'n1').click();
  await page.keyboard.press('3');
  await saved(page);
  await note(other, 'n4').click();
  await other.keyboard.press('4');
  await expect(mark(other, 'finger', 'n1')).toHaveAttribute('data-state', 'ink');
  await expect(mark(other, 'finger', 'n4')).toHaveAttribute('data-state', 'ink');
  await saved(other);
  // A change is seen in the other tab without a key.
  await note(page, 'n6').click();
  await page.keyboard.press('1');
  await expect(mark(other, 'finger', 'n6')).toHaveAttribute('data-state', 'ink', { timeout: 2000 });
  // The same note in both, one of them without a line: the first one stays, the second chooses by one key.
  await note(page, 'n5').click();
  await note(other, 'n5').click();
  await other.route('**/api/editions/**', (route) => route.abort());
  await other.keyboard.press('1');
  await expect(other.getByTestId('save-state')).toContainText('kept in this browser');
  await page.keyboard.press('2');
  await saved(page);
  await other.unroute('**/api/editions/**');
  const choice = other.getByTestId('overtaken');
  await expect(choice).toContainText('finger: theirs 2, yours 1');
  await expect(mark(other, 'finger', 'n5')).toContainText('2');
  await other.keyboard.press('Shift+M');
  await expect(choice).toHaveCount(0);
  await expect(mark(other, 'finger', 'n5')).toContainText('1');
  await expect(mark(page, 'finger', 'n5')).toContainText('1');
});

test('the keys are explained on ?', async ({ page }) => {
  await importAndOpen(page, 'help.musicxml');
  await page.keyboard.press('?');
  const dialog = page.getByRole('dialog', { name: 'Keys' });
  await expect(dialog).toContainText('left-hand finger');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
});
