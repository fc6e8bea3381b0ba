import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { DEMO_ACCOUNT } from '../../src/lib/demoAccount';
import { documentXml, noteXml } from '../helpers/music';
import { scoreFile, signIn, untilPlanned } from './steps';

test('the first visit of the demo shows its pieces, one click from a fingered score', async ({ page }) => {
  await page.goto('/');
  await expect(page).toHaveURL(/\/shelf$/);
  await page.getByRole('link', { name: /^Mill Bridge Dance/ }).click();
  await untilPlanned(page);
  await expect(page.locator('[data-mark=finger]')).toHaveCount(88);
  await expect(page.getByText('Everything can be played')).toBeVisible();
});

test('signing out leads to the sign-in page, which shows the demo account; a wrong password is explained', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByText(DEMO_ACCOUNT.password)).toBeVisible();
  await page.goto('/shelf');
  await expect(page).toHaveURL(/\/sign-in$/);
  await page.getByLabel('Password').fill('something else');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('do not belong together');
});

test('files that are dropped get a result each; a bad one changes nothing', async ({ page }) => {
  await signIn(page);
  const before = await page.getByRole('heading', { level: 2 }).count();
  const good = scoreFile('dropped.musicxml').buffer.toString('utf8');
  const transfer = await page.evaluateHandle((content) => {
    const data = new DataTransfer();
    data.items.add(new File([content], 'dropped.musicxml'));
    data.items.add(new File(['<score-partwise><part'], 'cut.musicxml'));
    return data;
  }, good);
  await page.dispatchEvent('body', 'drop', { dataTransfer: transfer });
  const results = page.getByRole('region', { name: 'Import' });
  await expect(results).toContainText('Imported');
  await expect(results).toContainText('cut.musicxml. The file is not well-formed XML: line 1');
  await expect(page.getByRole('heading', { level: 2 })).toHaveCount(before + 1);
});

test('a score of several parts gives the guitar and offers the others', async ({ page }) => {
  await signIn(page);
  const one = scoreFile('duo.musicxml').buffer.toString('utf8');
  const part = one.slice(one.indexOf('<part id="P1">'), one.indexOf('</score-partwise>'));
  const duo = one
    .replace('</part-list>', '<score-part id="P2"><part-name>Flute</part-name></score-part></part-list>')
    .replace('</score-partwise>', `${part.replace('P1', 'P2')}</score-partwise>`);
  await page
    .getByLabel('Score files')
    .setInputFiles({ name: 'duo.musicxml', mimeType: 'application/xml', buffer: Buffer.from(duo) });
  const results = page.getByRole('region', { name: 'Import' });
  await expect(results).toContainText('part “Guitar”');
  await results.getByRole('button', { name: 'Flute, 10 notes' }).click();
  await expect(results).toContainText('part “Flute”');
});

test('many files show their progress, and what is left can be cancelled', async ({ page }) => {
  await signIn(page);
  let answered = 0;
  await page.route('**/api/pieces', async (route) => {
    // The third file is slow, so that there is something to cancel.
    if (++answered === 3) await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.continue().catch(() => undefined);
  });
  const files = Array.from({ length: 6 }, (_, k) => scoreFile(`many ${k + 1}.musicxml`));
  await page.getByLabel('Score files').setInputFiles(files);
  await expect(page.getByText('2 of 6')).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  const results = page.getByRole('region', { name: 'Import' });
  await expect(results.getByText('Imported')).toHaveCount(2);
  await expect(results.getByText('Cancelled; nothing was stored.')).toHaveCount(4);
});

test('a stored page is painted without the engraver', async ({ page }) => {
  await signIn(page);
  const name = `stored-${Date.now()}.musicxml`;
  await page.getByLabel('Score files').setInputFiles(scoreFile(name));
  // The card of the piece says so when page and plan are there; before, the desk would make them itself.
  const card = page.getByRole('article').filter({ hasText: name });
  await expect(card.getByText('Effort')).toBeVisible({ timeout: 60_000 });
  const engravers: string[] = [];
  page.on(
    'request',
    (request) => /engraver|verovio|wasm/.test(request.url()) && engravers.push(request.url()),
  );
  // Without the planner's worker, too: page and marks come from the server.
  await page.route('**/planner.worker*', (route) => route.abort());
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await expect(page.locator('[data-mark=finger]')).toHaveCount(10);
  expect(engravers).toEqual([]);
});

test('a long piece that has just come in shows its first systems, and then all of it', async ({ page }) => {
  const bars = Array.from({ length: 60 }, (_, k) =>
    [60, 64, 67, 62 + (k % 5)].map((midi) => noteXml({ midi, onset: 0, length: 2 })).join(''),
  );
  const file = {
    name: 'sixty.musicxml',
    mimeType: 'application/xml',
    buffer: Buffer.from(documentXml(bars)),
  };
  await page.goto('/');
  await page.waitForURL('**/shelf');
  await page.getByLabel('Score files').setInputFiles(file);
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await expect(page.locator('[data-note=n1]')).toBeVisible();
  await expect(page.locator('[data-mark=finger]').first()).toBeVisible();
  // The rest comes without anybody asking.
  await expect(page.locator('[data-note=n240]')).toHaveCount(1, { timeout: 60_000 });
  await expect(page.locator('[data-mark=finger]')).toHaveCount(240, { timeout: 60_000 });
});

test('pieces are found by their title', async ({ page }) => {
  await signIn(page);
  await page.getByLabel('Find a piece').fill('weir');
  await expect(page.getByRole('heading', { level: 2 })).toHaveText(['Weir Étude']);
  await page.getByLabel('Find a piece').fill('nothing like it');
  await expect(page.getByText('No title, composer, key or tag has')).toBeVisible();
});

for (const colorScheme of ['light', 'dark'] as const) {
  test(`no page has an accessibility violation (${colorScheme})`, async ({ page }) => {
    await page.emulateMedia({ colorScheme });
    const violations = async () =>
      (
        await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa']).analyze()
      ).violations.map(
        (violation) => `${violation.id}: ${violation.nodes.map((one) => one.target.join(' ')).join(', ')}`,
      );
    await page.goto('/sign-in');
    expect(await violations()).toEqual([]);
    await signIn(page);
    expect(await violations()).toEqual([]);
    await page.getByRole('link', { name: /^Slow Window/ }).click();
    await untilPlanned(page);
    expect(await violations()).toEqual([]);
    await page.getByRole('tab', { name: 'Score' }).click();
    expect(await violations()).toEqual([]);
    await page.getByRole('link', { name: 'Survey' }).click();
    await expect(page.getByRole('heading', { name: 'Effort by bar' })).toBeVisible();
    await expect(page.getByText('Hardest:')).toBeVisible();
    expect(await violations()).toEqual([]);
  });
}

test('nothing is asked of any other machine', async ({ page }) => {
  const foreign: string[] = [];
  page.on('request', (request) => {
    if (
      !request.url().startsWith(new URL(page.url() === 'about:blank' ? request.url() : page.url()).origin) &&
      !/^(data|blob):/.test(request.url())
    )
      foreign.push(request.url());
  });
  const problems: string[] = [];
  page.on('console', (message) => message.type() === 'error' && problems.push(message.text()));
  page.on('pageerror', (error) => problems.push(error.message));
  await signIn(page);
  await page.getByRole('link', { name: /^Lantern Stairs/ }).click();
  await untilPlanned(page);
  expect(foreign).toEqual([]);
  expect(problems).toEqual([]);
});

test('a piece is renamed, tagged, found by it, removed and brought back', async ({ page }) => {
  await signIn(page);
  await page.getByLabel('Score files').setInputFiles(scoreFile('to be named.musicxml'));
  await expect(page.getByRole('heading', { name: 'to be named' }).first()).toBeVisible();
  const card = page.getByRole('article').filter({ hasText: 'to be named' }).first();
  await card.getByRole('button', { name: /Name, tags/ }).click();
  await card.getByLabel('Title').fill('Quiet Harbour');
  await card.getByLabel('Composer').fill('Ilse Tarn');
  await card.getByLabel('Tags').fill('exam, grade 3');
  await card.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('heading', { name: 'Quiet Harbour' })).toBeVisible();
  for (const query of ['tarn exam', 'harbour', 'grade 3']) {
    await page.getByLabel('Find a piece').fill(query);
    await expect(page.getByRole('heading', { level: 2 })).toHaveText(['Quiet Harbour']);
  }
  await page.getByRole('button', { name: 'Remove Quiet Harbour' }).click();
  await expect(page.getByRole('heading', { name: 'Quiet Harbour' })).toHaveCount(0);
  await page.getByText(/removed$/).click();
  await page.getByRole('button', { name: 'Bring back Quiet Harbour' }).click();
  await expect(page.getByRole('heading', { name: 'Quiet Harbour' })).toBeVisible();
  await page.getByLabel('Find a piece').fill('');
  await page.getByLabel('Order').selectOption({ label: 'by title' });
  const titles = await page.getByRole('heading', { level: 2 }).allTextContents();
  expect(titles.length).toBeGreaterThan(7);
  expect(titles).toEqual(
    [...titles].sort((a, b) => a.localeCompare(b, 'en', { sensitivity: 'base', numeric: true })),
  );
});

test('the same file twice is noticed, and its second copy can go', async ({ page }) => {
  await signIn(page);
  const notes = [61, 63, 66, 68].map((midi, k) => ({ midi, onset: 2 * k, length: 2 }));
  const file = scoreFile('twice.musicxml', notes, 77);
  await page.getByLabel('Score files').setInputFiles(file);
  await expect(page.getByRole('link', { name: 'open on the desk' })).toBeVisible();
  await expect(page.getByTestId('same-file')).toHaveCount(0);
  await page.getByLabel('Score files').setInputFiles(file);
  await expect(page.getByTestId('same-file')).toContainText('open “twice”');
  await expect(page.getByRole('heading', { name: 'twice' })).toHaveCount(2);
  await page.getByRole('button', { name: 'Remove this second copy' }).click();
  await expect(page.getByRole('heading', { name: 'twice' })).toHaveCount(1);
});

test('another file of the same title can be taken as the newer one: the fingering stays', async ({
  page,
}) => {
  await signIn(page);
  const tune = [61, 63, 66, 68].map((midi, k) => ({ midi, onset: 2 * k, length: 2 }));
  await page.getByLabel('Score files').setInputFiles(scoreFile('renewed.musicxml', tune, 83));
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('save-state')).toHaveText(/^saved \d/);
  await page.getByRole('link', { name: 'To the shelf' }).click();
  const longer = [...tune, { midi: 70, onset: 8, length: 2 }];
  await page.getByLabel('Score files').setInputFiles(scoreFile('renewed.musicxml', longer, 83));
  await expect(page.getByTestId('same-title')).toContainText('open “renewed”');
  await page.getByRole('button', { name: 'This is its newer file' }).click();
  await expect(page.getByRole('region', { name: 'Import' })).toContainText(
    /Taken in: [1-3] marks carried over/,
  );
  await expect(page.getByRole('heading', { name: 'renewed' })).toHaveCount(1);
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
  await expect(page.getByTestId('note-state')).toHaveText('ink');
});

test('the state of a piece is true again after a step back', async ({ page }) => {
  await signIn(page);
  await page.getByLabel('Score files').setInputFiles(scoreFile('states.musicxml', undefined, 71));
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
  const state = async (words: string) => {
    await expect(page.getByTestId('save-state')).toHaveText(/^saved \d/);
    await page.getByRole('link', { name: 'To the shelf' }).click();
    await expect(page.getByRole('article').filter({ hasText: 'states' }).first()).toContainText(words);
    await page
      .getByRole('link', { name: /^states/ })
      .first()
      .click();
    await untilPlanned(page);
  };
  await page.keyboard.press('Enter');
  await state('part inked');
  await page.keyboard.press('Control+z');
  await state('in pencil');
  await page.keyboard.press('Control+Enter');
  await state('inked');
});

test('after signing in one lands where one wanted to go', async ({ page, context }) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Weir/ }).first().click();
  await untilPlanned(page);
  const address = page.url();
  await context.clearCookies();
  await page.goto(address);
  await expect(page).toHaveURL(/sign-in\?to=/);
  await page.getByLabel('E-mail').fill(DEMO_ACCOUNT.email);
  await page.getByLabel('Password').fill(DEMO_ACCOUNT.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page).toHaveURL(address);
});
