/** From the click on a long piece that has just come in to its first painted systems, and to all of it. */
import { chromium } from '@playwright/test';
import { barredVoices } from '../bench/music';
import { CHROMIUM_FLAGS } from '../scripts/run/chromiumFlags';
import { chromiumOrThrow } from '../scripts/run/debian';
import { begin, milliseconds, row } from './report';
import { World } from './world';

const TITLE = 'A long piece right after its import';
const BARS = 200;
const ROUNDS = 3;

export async function score(): Promise<void> {
  begin(
    TITLE,
    `A piece of ${BARS} bars is imported and opened at once, before the server has engraved or planned it, in Chromium; the median of ${ROUNDS} new pieces, and the longest.`,
  );
  const world = await World.make();
  const teacher = await world.teacher('score');
  const browser = await chromium.launch({ executablePath: chromiumOrThrow(), args: CHROMIUM_FLAGS });
  const first: number[] = [];
  const fingered: number[] = [];
  const whole: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const context = await browser.newContext();
    const [name, ...value] = teacher.cookie.split('=');
    await context.addCookies([{ name: name!, value: value.join('='), url: world.address }]);
    const page = await context.newPage();
    await page.goto(`${world.address}/shelf`);
    const { id } = await teacher.send(`long ${round}.musicxml`, barredVoices(BARS, round + 11));
    await page.reload();
    const clicked = performance.now();
    await page.locator(`a[href="/desk/${id}"]`).first().click();
    await page.locator('[data-testid=score]').waitFor({ timeout: 120_000 });
    first.push(performance.now() - clicked);
    await page.locator('[data-mark=finger]').first().waitFor({ timeout: 120_000 });
    fingered.push(performance.now() - clicked);
    await page.locator(`[data-note=n${10 * BARS}]`).waitFor({ state: 'attached', timeout: 180_000 });
    whole.push(performance.now() - clicked);
    await context.close();
  }
  const tell = (what: string, times: readonly number[]) =>
    row(TITLE, what, `${milliseconds(times, 0.5)}, longest ${milliseconds(times, 1)}`);
  tell('click to the first painted systems', first);
  tell('click to the first fingers', fingered);
  tell('click to the whole score', whole);
  await browser.close();
  await world.end();
}
