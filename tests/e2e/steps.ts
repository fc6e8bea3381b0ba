/** What a teacher does, as steps for the browser tests. */
import { expect, type Page } from '@playwright/test';
import { DEMO_ACCOUNT } from '../../src/lib/demoAccount';
import { barXml, type TestNote } from '../helpers/music';

export async function signIn(page: Page): Promise<void> {
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(DEMO_ACCOUNT.email);
  await page.getByLabel('Password').fill(DEMO_ACCOUNT.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
}

/** A made-up piece that is not in the demo: two voices, eight eighths. */
export const TWO_VOICES: readonly TestNote[] = [
  ...[64, 62, 60, 62, 64, 65, 67, 64].map((midi, k) => ({ midi, onset: k, length: 1 })),
  { midi: 48, onset: 0, length: 4, voice: 2 },
  { midi: 45, onset: 4, length: 4, voice: 2 },
];

export const scoreFile = (name: string, notes: readonly TestNote[] = TWO_VOICES, bpm = 90) => ({
  name,
  mimeType: 'application/xml',
  buffer: Buffer.from(barXml(notes, bpm)),
});

/** Imports by the file chooser and opens the piece on the desk. */
export async function importAndOpen(
  page: Page,
  name: string,
  notes?: readonly TestNote[],
  bpm?: number,
): Promise<void> {
  await page.getByLabel('Score files').setInputFiles(scoreFile(name, notes, bpm));
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
}

export async function untilPlanned(page: Page): Promise<void> {
  await expect(page.locator('[data-mark=finger]').first()).toBeVisible();
  await expect(page.getByTestId('candidates').getByRole('button').first()).toBeVisible();
}

export const mark = (page: Page, kind: string, uid: string) =>
  page.locator(`[data-mark=${kind}][data-uid=${uid}]`);

export const note = (page: Page, uid: string) => page.locator(`[data-note=${uid}]`);

export const saved = (page: Page) => expect(page.getByTestId('save-state')).toHaveText(/^saved \d\d:\d\d$/);
