/** Two browsers on one piece, and a server that is killed under them: nothing is lost, and both end equal. */
import { expect, type Page, test } from '@playwright/test';
import { freePort } from '../../scripts/run/cluster';
import { startServer, stopServer } from '../../scripts/run/server';
import { importAndOpen, mark, note, saved, signIn, untilPlanned } from './steps';

const inked = (page: Page) =>
  page
    .locator('[data-mark=finger][data-state=ink]')
    .evaluateAll((all) =>
      all.map((one) => `${one.getAttribute('data-uid')} ${one.textContent.trim()}`).sort(),
    );

test('what two desks decide while the server is dead is there for both when it lives again', async ({
  browser,
}) => {
  const port = await freePort(0);
  // Without its own background work: the server beside it has that.
  const start = () =>
    startServer({ port, database: { app: process.env['OCULON_DATABASE_URL']!, jobs: '' }, demo: true });
  let server = await start();
  const context = () => browser.newContext({ baseURL: server.address });
  const [one, other] = await Promise.all([(await context()).newPage(), (await context()).newPage()]);
  await signIn(one);
  await signIn(other);
  await importAndOpen(one, 'killed.musicxml');
  await other.goto(one.url());
  await untilPlanned(other);
  await note(one, 'n1').click();
  await one.keyboard.press('3');
  await saved(one);
  await expect(mark(other, 'finger', 'n1')).toHaveText('3');

  server.process.kill('SIGKILL');
  await note(one, 'n2').click();
  await one.keyboard.press('4');
  await note(other, 'n5').click();
  await other.keyboard.press('2');
  for (const page of [one, other])
    await expect(page.getByTestId('save-state')).toHaveText('kept in this browser, 1 to send');

  server = await start();
  await saved(one);
  await saved(other);
  const all = ['n1 3', 'n2 4', 'n5 2'];
  for (const page of [one, other]) await expect.poll(() => inked(page)).toEqual(all);
  await one.reload();
  await untilPlanned(one);
  expect(await inked(one)).toEqual(all);
  await stopServer(server);
});
