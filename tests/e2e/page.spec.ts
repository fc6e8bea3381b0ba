/**
 * The drawn page of every demo piece, and of generated dense ones, in the browser: every expected mark is there, legible,
 * near its note, and on nothing else. What is expected is counted from the plan as the server stores it.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { documentXml, noteXml, randomFrom } from '../helpers/music';
import { drawnMarks } from './drawnPage';
import { importAndOpen, mark, note, saved, signIn, untilPlanned } from './steps';

const DEMO = new URL('../../demo/', import.meta.url);
const TITLES = readdirSync(DEMO)
  .filter((name) => name.endsWith('.musicxml'))
  .map((name) => /<work-title>([^<]+)/.exec(readFileSync(new URL(name, DEMO), 'utf8'))![1]!);

interface StoredPlan {
  readonly notes: readonly {
    readonly uid: string;
    readonly finger: number | null;
    readonly pluck: string | null;
  }[];
  readonly barres: readonly unknown[];
}

/** The plan that is stored, as the desk gets it. */
async function openWithPlan(page: Page, title: string): Promise<StoredPlan> {
  await expect(async () => {
    await page.goto('/shelf');
    const stored = page.waitForResponse((one) => /\/plan\//.test(one.url()), { timeout: 8_000 });
    await page
      .getByRole('link', { name: new RegExp(title) })
      .first()
      .click();
    plan = (await (await stored).json()) as StoredPlan;
  }).toPass({ timeout: 80_000 });
  await untilPlanned(page);
  return plan!;
}
let plan: StoredPlan | null = null;

async function expectWellMarked(page: Page, { notes, barres }: StoredPlan): Promise<void> {
  const marks = await drawnMarks(page);
  const drawn = (kind: string) => marks.filter((one) => one.kind === kind).map(({ uid }) => uid);
  expect(drawn('finger').sort()).toEqual(
    notes
      .filter(({ finger }) => finger !== null)
      .map(({ uid }) => uid)
      .sort(),
  );
  expect(drawn('pluck').sort()).toEqual(
    notes
      .filter(({ pluck }) => pluck !== null)
      .map(({ uid }) => uid)
      .sort(),
  );
  expect(drawn('barre')).toHaveLength(barres.length);
  expect(marks.filter(({ touches }) => touches.length > 0)).toEqual([]);
  for (const one of marks.filter(({ distance }) => distance !== null)) {
    // Common practice: a numeral is at least as high as a staff space, and stands at its note.
    expect(one.height, `${one.kind} ${one.uid}`).toBeGreaterThan(1.15);
    expect(one.distance, `${one.kind} ${one.uid}`).toBeLessThanOrEqual(2.05);
  }
}

test.beforeEach(async ({ page }) => {
  await signIn(page);
});

for (const title of TITLES)
  test(`every mark of ${title} is drawn, legible and clear of everything`, async ({ page }) => {
    await expectWellMarked(page, await openWithPlan(page, title));
  });

test('no style asks the root what it holds: each change would look through every note of the page', async ({
  page,
}) => {
  const asking = () =>
    page.evaluate(() => {
      const selectors = (rules: CSSRuleList): string[] =>
        [...rules].flatMap((rule) => [
          ...('selectorText' in rule ? [String(rule.selectorText)] : []),
          ...('cssRules' in rule ? selectors(rule.cssRules as CSSRuleList) : []),
        ]);
      return [...document.styleSheets]
        .flatMap((sheet) => selectors(sheet.cssRules))
        .filter((selector) => /(:root|html|body):has\(/.test(selector));
    });
  expect(await asking()).toEqual([]);
  await page.addStyleTag({ content: '@layer a { :root:has(.b) { color: red } }' });
  expect(await asking()).toHaveLength(1);
});

/** Long runs take more. */
const DENSE = Number(process.env['OCULON_DRAWN_PAGES'] ?? 1);

test('so are those of dense pages that chance has written', async ({ page }) => {
  test.setTimeout(90_000 * DENSE);
  const random = randomFrom(77);
  for (let round = 0; round < DENSE; round++) {
    const bars = Array.from({ length: 8 }, () =>
      Array.from({ length: 8 }, (_, k) => {
        const low = 40 + Math.floor(random() * 12);
        const upper = Array.from(
          { length: 1 + Math.floor(random() * 2) },
          (_, n) => 55 + 6 * n + Math.floor(random() * 6),
        );
        const struck = k % 4 === 0 ? [low, ...upper] : upper;
        return struck.map((midi, n) => noteXml({ midi, onset: k, length: 1 }, n > 0)).join('');
      }).join(''),
    );
    const name = `dense ${round} ${Date.now()}`;
    await page.goto('/shelf');
    await page.getByLabel('Score files').setInputFiles({
      name: `${name}.musicxml`,
      mimeType: 'application/xml',
      buffer: Buffer.from(
        documentXml(bars).replace(/<part-list>/, `<movement-title>${name}</movement-title><part-list>`),
      ),
    });
    await expect(page.getByRole('link', { name: 'open on the desk' })).toBeVisible();
    await expectWellMarked(page, await openWithPlan(page, name));
  }
});

test('words on the sound and remarks find room between everything else', async ({ page }) => {
  test.setTimeout(120_000);
  await openWithPlan(page, 'Late Ferry');
  const say = async (words: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'What to do' }).fill(words);
    await page.keyboard.press('Enter');
  };
  await page.locator('[data-note]').first().click();
  await page.keyboard.press('Control+a');
  for (const words of ['accent', 'vibrato']) await say(words);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Home');
  const bars = await page.evaluate(() => document.querySelectorAll('.engraving g.measure').length);
  for (let bar = 0; bar < bars; bar++) {
    if (bar % 2 === 0) await say(bar % 4 === 0 ? 'near the bridge' : 'rather loud');
    if (bar % 3 === 0) {
      await page.keyboard.press('Shift+R');
      await page
        .getByRole('textbox', { name: /Remark to bar/ })
        .fill('the thumb waits until the melody is down');
      await page.keyboard.press('Enter');
    }
    await page.keyboard.press('Control+ArrowRight');
  }
  const marks = await drawnMarks(page);
  expect(marks.filter(({ kind }) => kind === 'remark').length).toBeGreaterThan(bars / 4);
  expect(marks.filter(({ kind }) => kind === 'expression').length).toBeGreaterThan(2 * bars);
  expect(marks.filter(({ touches }) => touches.length > 0)).toEqual([]);
});

test('pencil, ink and what the file printed differ in form, also in grey; conflicts and departures have signs', async ({
  page,
}) => {
  const printed = documentXml([
    [64, 65, 67, 69]
      .map((midi, k) =>
        noteXml({ midi, onset: k, length: 2 }).replace(
          '</note>',
          `<notations><technical><fingering>${[0, 4, 3, 1][k]}</fingering></technical></notations></note>`,
        ),
      )
      .join(''),
  ]);
  await page.getByLabel('Score files').setInputFiles({
    name: 'forms.musicxml',
    mimeType: 'application/xml',
    buffer: Buffer.from(printed),
  });
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
  await note(page, 'n3').click();
  await page.keyboard.press('3');
  await expect(mark(page, 'finger', 'n3')).toHaveAttribute('data-state', 'ink');
  const forms = await page.locator('[data-mark=finger]').evaluateAll((marks) =>
    marks.map((one) => ({
      state: one.getAttribute('data-state'),
      weight: Number(getComputedStyle(one).fontWeight),
      slant: getComputedStyle(one).fontStyle,
      brackets: one.querySelector('[data-form=brackets]') !== null,
    })),
  );
  const of = (state: string) => forms.filter((one) => one.state === state);
  for (const one of of('ink')) expect(one).toMatchObject({ slant: 'normal', brackets: false });
  for (const one of of('printed')) expect(one).toMatchObject({ slant: 'normal', brackets: true });
  for (const one of await page.locator('[data-mark=pluck][data-state=pencil]').all())
    expect(Number(await one.evaluate((mark) => getComputedStyle(mark).fontWeight))).toBeLessThan(
      0.6 * of('ink')[0]!.weight,
    );
  expect(of('printed').length).toBeGreaterThan(0);
  // Against the file: the second finger on the second note.
  await note(page, 'n2').click();
  await page.keyboard.press('Backspace');
  await page.keyboard.press('3');
  await expect(mark(page, 'finger', 'n2').locator('[data-departs="4"]')).toHaveCount(1);
  await expect(page.getByTestId('departure')).toContainText('file 4 → plan 3');
});

test('teaching marks are a part of all marks, each with its reason; the choice is kept and undone', async ({
  page,
}) => {
  await page
    .getByRole('link', { name: /Rain on Tin/ })
    .first()
    .click();
  await untilPlanned(page);
  const count = () => page.locator('[data-mark=finger], [data-mark=pluck]').count();
  const full = await count();
  await page.keyboard.press('f');
  await expect.poll(count).toBeLessThan(0.5 * full);
  expect(await count()).toBeGreaterThan(0.05 * full);
  await expect(page.getByRole('button', { name: 'Teaching' })).toHaveAttribute('aria-pressed', 'true');
  const first = page.locator('[data-mark=finger]').first();
  await note(page, (await first.getAttribute('data-uid'))!).click();
  await expect(page.getByTestId('mark-reasons')).toContainText('the piece begins here');
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await expect.poll(count).toBeLessThan(0.5 * full);
  // The fewest are fewer still; after them comes every note again.
  const teaching = await count();
  await page.keyboard.press('f');
  await expect.poll(count).toBeLessThan(0.8 * teaching);
  await page.keyboard.press('f');
  await expect.poll(count).toBe(full);
  await saved(page);
});

test('a damping sign is set by a key, at every density, and undone', async ({ page }) => {
  await importAndOpen(page, 'stopped bass.musicxml');
  await note(page, 'n9').click();
  await page.keyboard.press(',');
  await expect(mark(page, 'damp', 'n9').locator('circle')).toHaveCount(1);
  await page.keyboard.press(',');
  await expect(mark(page, 'damp', 'n9').locator('circle')).toHaveCount(2);
  await page.keyboard.press('f');
  await expect(mark(page, 'damp', 'n9')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save fingered score' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('<damp-all/>');
  await page.keyboard.press('f');
  await page.keyboard.press('f');
  await page.keyboard.press(',');
  await expect(mark(page, 'damp', 'n9')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'damp', 'n9').locator('circle')).toHaveCount(2);
});

test('a narrow window has fewer bars to a system at a legible size', async ({ page }) => {
  await page
    .getByRole('link', { name: /Late Ferry/ })
    .first()
    .click();
  await untilPlanned(page);
  const space = () =>
    page.locator('.engraving .staff > path').evaluateAll((lines) => {
      const [first, second] = lines.map((line) => line.getBoundingClientRect().top);
      return second! - first!;
    });
  const systems = () => page.locator('[data-system]').count();
  const [wide, before] = [await systems(), await space()];
  await page.setViewportSize({ width: 640, height: 400 });
  await expect.poll(systems, { timeout: 20_000 }).toBeGreaterThan(wide);
  expect(await space()).toBeGreaterThan(0.9 * before);
  await expect(page.locator('[data-mark=finger]').first()).toBeAttached();
});

test('the fretboard shows the grip in equal temperament, and the next one', async ({ page }) => {
  await page
    .getByRole('link', { name: /Scaffold/ })
    .first()
    .click();
  await untilPlanned(page);
  await page.keyboard.press('g');
  const board = page.getByTestId('fretboard');
  await expect(board).toBeVisible();
  const xs = await board
    .locator('[data-wire]')
    .evaluateAll((wires) => wires.map((one) => Number(one.getAttribute('x1'))));
  const widths = xs.slice(1).map((x, k) => x - xs[k]!);
  for (const [k, width] of widths.entries())
    if (k > 0) expect(widths[k - 1]! / width).toBeCloseTo(2 ** (1 / 12), 4);
  await page.keyboard.press('ArrowRight');
  await expect(board.locator('[data-tip]').first()).toBeVisible();
  await expect(board.locator('[data-ghost]').first()).toBeAttached();
  await page.keyboard.press('g');
  await expect(board).toBeHidden();
});
