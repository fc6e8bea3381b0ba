import { chromium } from '@playwright/test';
const b = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
    '--disable-quic',
  ],
});
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
p.on('console', (m) => m.type() === 'error' && console.log('console', m.text()));
p.on('pageerror', (e) => console.log('pageerror', e.message));
await p.goto('http://127.0.0.1:4300/');
await p.waitForURL(/shelf|sign/);
if (p.url().includes('sign')) {
  await p
    .getByRole('button', { name: /sign in/i })
    .first()
    .click();
  await p.waitForURL(/shelf/);
}
const piece = process.argv[2] ?? 'Weir';
await p
  .getByRole('link', { name: new RegExp(piece) })
  .first()
  .click();
await p.waitForURL(/desk/);
await p.waitForSelector('[data-testid=candidates] tbody tr', { timeout: 60000 });
await p.waitForTimeout(2500);
const steps = process.argv.slice(3);
let n = 0;
for (const s of steps) {
  if (s.startsWith('tab:')) await p.getByRole('tab', { name: s.slice(4) }).click();
  else if (s.startsWith('key:')) await p.keyboard.press(s.slice(4));
  else if (s.startsWith('btn:'))
    await p
      .getByRole('button', { name: s.slice(4) })
      .first()
      .click();
  else if (s.startsWith('wait:')) await p.waitForTimeout(Number(s.slice(5)));
  else if (s.startsWith('sel:')) {
    const [l, v] = s.slice(4).split('=');
    await p.getByLabel(l!).selectOption(v!);
  } else if (s.startsWith('shot:')) {
    await p.screenshot({ path: `/tmp/${s.slice(5)}.png` });
  }
}
await b.close();
