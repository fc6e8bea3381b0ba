/** The running application: start, first paint, and a shelf that is filled while somebody saves. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, chromium, type Page } from '@playwright/test';
import { closePool } from '../src/lib/server/db';
import { DEMO_ACCOUNT } from '../src/lib/demoAccount';
import { seedDemo } from '../scripts/demo/seed';
import { buildOnce } from '../scripts/run/build';
import { freePort, startCluster } from '../scripts/run/cluster';
import { prepareDatabase } from '../scripts/run/database';
import { CHROMIUM_FLAGS } from '../scripts/run/chromiumFlags';
import { chromiumOrThrow } from '../scripts/run/debian';
import { startServer, stopServer } from '../scripts/run/server';
import { note, percentile, timedAsync } from './figures';
import { barredVoices } from './music';

/** @param handAlone only what a teacher's keys take */
export async function application(handAlone = false) {
  const folder = mkdtempSync(join(tmpdir(), 'oculon-bench-'));
  buildOnce();
  const first = await startCluster(folder);
  process.env.OCULON_DATABASE_URL = (await prepareDatabase(first.ownerUrl, folder)).app;
  await seedDemo(first.ownerUrl);
  await closePool();
  first.stop();

  const started = performance.now();
  const cluster = await startCluster(folder);
  const database = await prepareDatabase(cluster.ownerUrl, folder);
  const server = await startServer({ port: await freePort(0), database, demo: true });
  note('application', 'start with data: to the answering server', performance.now() - started, 'ms');
  const browser = await chromium.launch({ executablePath: chromiumOrThrow(), args: CHROMIUM_FLAGS });
  if (!handAlone) await firstPaints(browser, server.address);
  if (!handAlone) await drillChanges(browser, server.address);
  await keysOnTheDemo(browser, server.address);
  await atTheHand(browser, server.address);
  await browser.close();
  if (!handAlone) await longHistory(server.address);
  if (!handAlone) await manyImports(server.address);
  await stopServer(server);
  cluster.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** From the click on a piece to its painted page and marks; cold in a new browser context, then again. */
async function firstPaints(browser: Browser, address: string) {
  const open = async (page: Page, label: string) => {
    await page.goto(`${address}/shelf`);
    await page.getByText('Engraving and planning').waitFor({ state: 'hidden', timeout: 60_000 });
    const clicked = performance.now();
    await page.getByRole('link', { name: /^Mill Bridge Dance/ }).click();
    await page.locator('[data-testid=score]').waitFor();
    note('application', `stored page to first paint, ${label}`, performance.now() - clicked, 'ms');
    await page.locator('[data-mark=finger]').first().waitFor();
    note('application', `stored page to the fingered score, ${label}`, performance.now() - clicked, 'ms');
    await page.locator('[data-testid=candidates] button').first().waitFor();
    note('application', `to the first prices, ${label}`, performance.now() - clicked, 'ms');
  };
  // The first context only lets the background finish.
  const waiting = await browser.newContext();
  const shelf = await waiting.newPage();
  await shelf.goto(address);
  await shelf.waitForURL('**/shelf');
  await shelf.getByText('Engraving and planning').waitFor({ state: 'hidden', timeout: 60_000 });
  await waiting.close();
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto(address);
  await page.waitForURL('**/shelf');
  await open(page, 'cold');
  await open(page, 'warm');
  await context.close();
}

/** Kinds that leave something to the planner, and kinds that prescribe everything. */
const DRILLS = [
  'finger-pairs',
  'scales',
  'triads',
  'right-hand-orders',
  'chord-patterns',
  'thumb-levels',
  'strums',
];

/** From a parameter that changes to the first painted note of the new drill: every list of some kinds once. */
async function drillChanges(browser: Browser, address: string) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(address);
  await page.waitForURL('**/shelf');
  const times: number[] = [];
  for (const kind of DRILLS) {
    await page.goto(`${address}/drills?kind=${kind}`);
    await page.getByTestId('drill-counts').waitFor({ timeout: 60_000 });
    times.push(...(await page.evaluate(changeEveryList)));
  }
  note('application', 'drill: parameter to first painted note, median', percentile(times, 0.5), 'ms');
  note(
    'application',
    'drill: parameter to first painted note, 95th percentile',
    percentile(times, 0.95),
    'ms',
  );
  await context.close();
}

/** In the page. */
async function changeEveryList(): Promise<readonly number[]> {
  const paper = document.querySelector('[data-shown]')!;
  const times: number[] = [];
  for (const list of document.querySelectorAll<HTMLSelectElement>('[aria-labelledby=drill-choices] select')) {
    const before = paper.getAttribute('data-shown');
    const started = performance.now();
    list.value = list.options[list.options.length - 1]!.value;
    list.dispatchEvent(new Event('change', { bubbles: true }));
    while (paper.getAttribute('data-shown') === before)
      await new Promise((done) => requestAnimationFrame(done));
    await new Promise((done) => requestAnimationFrame(done));
    times.push(performance.now() - started);
    await new Promise((done) => setTimeout(done, 700));
  }
  return times;
}

const LONG_BARS = 200;
const KEYS = 60;
const PRICES = 20;

/** A long piece under the fingers: from the key to the painted answer, and frames lost while it is scrolled. */
async function atTheHand(browser: Browser, address: string) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(address);
  await page.waitForURL('**/shelf');
  const name = 'a long piece.musicxml';
  await page.getByLabel('Score files').setInputFiles({
    name,
    mimeType: 'application/xml',
    buffer: Buffer.from(barredVoices(LONG_BARS, 5)),
  });
  await page.getByRole('link', { name: 'open on the desk' }).click({ timeout: 60_000 });
  await page.locator('[data-mark=finger]').first().waitFor({ timeout: 60_000 });
  await page.locator('main[aria-busy=false]').waitFor({ timeout: 240_000 });
  await page.waitForFunction(
    (least) => document.querySelectorAll('[data-note]').length > least,
    LONG_BARS * 8,
    { timeout: 120_000 },
  );
  await keysOn(page, `${LONG_BARS} bars`);
  const { frames, lost } = await page.evaluate(scrolled);
  note('at the hand', `${LONG_BARS} bars scrolled: frames lost of ${frames}`, lost, 'frames');
  await context.close();
}

/** Keys on every demo piece together: what a teacher feels on pieces of the usual length. */
async function keysOnTheDemo(browser: Browser, address: string) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(address);
  await page.waitForURL('**/shelf');
  const desks = await page
    .locator('article a[href^="/desk/"]')
    .evaluateAll((all) => all.map((one) => one.getAttribute('href')!));
  const times: Record<string, number[]> = { arrow: [], numeral: [], prices: [] };
  for (const desk of desks) {
    await page.goto(`${address}${desk}`);
    await page.locator('[data-testid=candidates][data-exact=yes]').waitFor({ timeout: 60_000 });
    times.arrow!.push(...(await page.evaluate(painted, { keys: ['ArrowRight'], count: 15 })));
    times.numeral!.push(...(await page.evaluate(painted, { keys: ['1', '2', '3', '4'], count: 15 })));
    for (let k = 0; k < 5; k++) times.prices!.push(await untilExact(page));
  }
  for (const [what, all] of Object.entries(times)) {
    note('at the hand', `demo pieces: ${what}, median`, percentile(all, 0.5), 'ms');
    note('at the hand', `demo pieces: ${what}, 95th percentile`, percentile(all, 0.95), 'ms');
  }
  await context.close();
}

/** From the arrow to the exact prices of the next note. */
async function untilExact(page: Page): Promise<number> {
  return page.evaluate(async () => {
    const isExact = () =>
      document.querySelector('[data-testid=candidates]')?.getAttribute('data-exact') === 'yes';
    const started = performance.now();
    window.dispatchEvent(
      new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true, cancelable: true }),
    );
    while (isExact() && performance.now() - started < 100)
      await new Promise((done) => requestAnimationFrame(done));
    while (!isExact() && performance.now() - started < 5000)
      await new Promise((done) => requestAnimationFrame(done));
    return performance.now() - started;
  });
}

/** Arrows and numerals of the desk that is open. */
async function keysOn(page: Page, what: string) {
  const arrows = await page.evaluate(painted, { keys: ['ArrowRight'], count: KEYS });
  note('at the hand', `${what}: arrow to the painted selection, median`, percentile(arrows, 0.5), 'ms');
  note(
    'at the hand',
    `${what}: arrow to the painted selection, 95th percentile`,
    percentile(arrows, 0.95),
    'ms',
  );
  const numerals = await page.evaluate(painted, { keys: ['1', '2', '3', '4'], count: KEYS });
  note('at the hand', `${what}: key to the painted numeral, median`, percentile(numerals, 0.5), 'ms');
  note(
    'at the hand',
    `${what}: key to the painted numeral, 95th percentile`,
    percentile(numerals, 0.95),
    'ms',
  );
  const prices: number[] = [];
  for (let k = 0; k < PRICES; k++) prices.push(await untilExact(page));
  note('at the hand', `${what}: arrow to exact prices, median`, percentile(prices, 0.5), 'ms');
  note('at the hand', `${what}: arrow to exact prices, 95th percentile`, percentile(prices, 0.95), 'ms');
}

/** In the page: from each key press to the end of the frame that shows its answer. */
async function painted({ keys, count }: { keys: readonly string[]; count: number }): Promise<number[]> {
  const frame = () => new Promise<void>((resolve) => requestAnimationFrame(() => resolve()));
  const later = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
  const selected = () =>
    document.querySelector('[data-note][aria-pressed=true]')?.getAttribute('data-note') ?? '';
  const press = (key: string) =>
    window.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  const shown = () => {
    const mark = document.querySelector(`[data-mark=finger][data-uid="${selected()}"]`);
    return `${mark?.getAttribute('data-state')} ${mark?.textContent.trim()}`;
  };
  /** What makes no sense is refused in words, perhaps in the same as before: not what is measured here. */
  const MOST_FRAMES = 180;
  const isArrow = keys[0]!.startsWith('Arrow');
  const times: number[] = [];
  for (let k = 0; k < count; k++) {
    if (!isArrow) {
      press('ArrowRight');
      await new Promise((resolve) => setTimeout(resolve, 400));
    }
    const before = isArrow ? selected() : shown();
    const key = isArrow ? keys[0]! : keys.find((one) => !before.endsWith(one))!;
    const from = performance.now();
    press(key);
    const now = () => (isArrow ? selected() : shown());
    for (let n = 0; n < MOST_FRAMES && now() === before; n++) await frame();
    if (now() === before) continue;
    // It is seen before its frame is painted; when the next task runs it has been.
    await later();
    times.push(performance.now() - from);
    await new Promise((resolve) => setTimeout(resolve, isArrow ? 60 : 500));
  }
  return times;
}

/** In the page: the score from its beginning to its end and back, a screen in a third of a second. */
async function scrolled(): Promise<{ frames: number; lost: number }> {
  const view = document.querySelector('main')!;
  const FRAME_MS = 1000 / 60;
  const PIXELS = 40;
  let frames = 0;
  let lost = 0;
  let last = await new Promise<number>(requestAnimationFrame);
  for (const way of [1, -1])
    for (let at = 0; at < view.scrollHeight - view.clientHeight; at += PIXELS) {
      view.scrollBy(0, way * PIXELS);
      const now = await new Promise<number>(requestAnimationFrame);
      frames++;
      lost += Math.max(0, Math.round((now - last) / FRAME_MS) - 1);
      last = now;
    }
  return { frames, lost };
}

const MANY_GESTURES = 20_000;
const AT_ONCE = 500;

/** A desk that has been worked at for years: what it takes to open it, and to save on it. */
async function longHistory(address: string) {
  const cookie = await signIn(address);
  const { pieceId, editionId } = await savedPiece(address, cookie);
  const post = async (seenSeq: number, count: number) => {
    const gestures = Array.from({ length: count }, (_, k) => gesture(seenSeq + k));
    const [answer, ms] = await timedAsync(() =>
      fetch(`${address}/api/editions/${editionId}/gestures`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify({ seenSeq, gestures }),
      }),
    );
    if (answer.status !== 200) throw new Error(`save answered ${answer.status}`);
    return ms;
  };
  for (let seen = 0; seen < MANY_GESTURES; seen += AT_ONCE) await post(seen, AT_ONCE);
  const label = `a desk of ${MANY_GESTURES} gestures`;
  const opened: number[] = [];
  for (let k = 0; k < 20; k++)
    opened.push(
      (
        await timedAsync(() =>
          fetch(`${address}/desk/${pieceId}`, { headers: { cookie } }).then((page) => page.text()),
        )
      )[1],
    );
  note('application', `${label}: to its page from the server, median`, percentile(opened, 0.5), 'ms');
  const saves: number[] = [];
  for (let k = 0; k < 100; k++) saves.push(await post(MANY_GESTURES + k, 1));
  note('application', `${label}: a save, 95th percentile`, percentile(saves, 0.95), 'ms');
}

const PIECES = 20;
const BARS = 24;

/** Twenty pieces at once: how long until all are planned, and what a save takes meanwhile. */
async function manyImports(address: string) {
  const cookie = await signIn(address);
  const edition = await editionOfFirstPiece(address, cookie);
  let seen = 0;
  const save = async () => {
    const [answer, ms] = await timedAsync(() =>
      fetch(`${address}/api/editions/${edition}/gestures`, {
        method: 'POST',
        headers: { cookie, 'content-type': 'application/json' },
        body: JSON.stringify({ seenSeq: seen, gestures: [gesture(seen)] }),
      }),
    );
    if (answer.status !== 200) throw new Error(`save answered ${answer.status}`);
    seen++;
    return ms;
  };
  const idle: number[] = [];
  for (let k = 0; k < 200; k++) idle.push(await save());
  note('application', 'a save, idle, median', percentile(idle, 0.5), 'ms');
  note('application', 'a save, idle, 95th percentile', percentile(idle, 0.95), 'ms');

  const started = performance.now();
  const imports = Array.from({ length: PIECES }, (_, k) =>
    send(address, cookie, `piece ${k}`, barredVoices(BARS, k + 3)),
  );
  const busy: number[] = [];
  let planned = false;
  const saves = (async () => {
    while (!planned) {
      busy.push(await save());
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  await Promise.all(imports);
  note(
    'application',
    `${PIECES} pieces of ${BARS} bars at once: to all stored`,
    performance.now() - started,
    'ms',
  );
  while ((await unplanned(address, cookie)) > 0) await new Promise((resolve) => setTimeout(resolve, 250));
  note(
    'application',
    `${PIECES} pieces of ${BARS} bars at once: to all planned`,
    performance.now() - started,
    'ms',
  );
  planned = true;
  await saves;
  note('application', 'a save meanwhile, median', percentile(busy, 0.5), 'ms');
  note('application', 'a save meanwhile, 95th percentile', percentile(busy, 0.95), 'ms');
  note('application', 'a save meanwhile, longest', Math.max(...busy), 'ms');
}

const gesture = (seen: number) => ({
  id: crypto.randomUUID(),
  operations: [
    {
      v: 2,
      target: 'n1',
      attribute: 'finger',
      before: seen === 0 ? null : ((seen - 1) % 4) + 1,
      after: (seen % 4) + 1,
    },
  ],
});

async function signIn(address: string): Promise<string> {
  const answer = await fetch(`${address}/sign-in`, {
    method: 'POST',
    headers: { origin: address, 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams({ email: DEMO_ACCOUNT.email, password: DEMO_ACCOUNT.password }),
    redirect: 'manual',
  });
  return answer.headers.get('set-cookie')!.split(';')[0]!;
}

async function send(address: string, cookie: string, name: string, xml: string): Promise<string> {
  const form = new FormData();
  form.set('file', new File([xml], `${name}.musicxml`));
  const answer = await fetch(`${address}/api/pieces`, {
    method: 'POST',
    headers: { cookie, origin: address },
    body: form,
  });
  if (answer.status !== 201) throw new Error(await answer.text());
  return ((await answer.json()) as { id: string }).id;
}

const editionOfFirstPiece = async (address: string, cookie: string): Promise<string> =>
  (await savedPiece(address, cookie)).editionId;

async function savedPiece(address: string, cookie: string) {
  const pieceId = await send(address, cookie, 'saved', barredVoices(4, 2));
  const page = await (await fetch(`${address}/desk/${pieceId}`, { headers: { cookie } })).text();
  return { pieceId, editionId: /editionId:"([0-9a-f-]{36})"/.exec(page)![1]! };
}

/** Pieces that the shelf says are not ready. */
async function unplanned(address: string, cookie: string): Promise<number> {
  const page = await (await fetch(`${address}/shelf`, { headers: { cookie } })).text();
  return Number(/background: (\d+)/.exec(page)?.[1] ?? 0);
}
