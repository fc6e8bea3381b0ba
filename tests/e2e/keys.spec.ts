/** Working by the keys alone: ways, passages, the palette, corrections, steps, history. */
import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { documentXml, noteXml } from '../helpers/music';
import { importAndOpen, mark, note, saved, signIn, untilPlanned } from './steps';

test.beforeEach(async ({ page }) => signIn(page));

const selected = (page: Page) => page.locator('[data-note][aria-pressed=true]').getAttribute('data-note');
const eighths = (midis: readonly number[]) =>
  midis.map((midi, onset) => noteXml({ midi, onset, length: 1 })).join('');

async function openBars(page: Page, name: string, bars: readonly string[]) {
  await page
    .getByLabel('Score files')
    .setInputFiles({ name, mimeType: 'application/xml', buffer: Buffer.from(documentXml(bars)) });
  await page.getByRole('link', { name: 'open on the desk' }).click();
  await untilPlanned(page);
}

const TUNE = [64, 62, 60, 62, 64, 65, 67, 64];
const OTHER = [65, 64, 62, 64, 65, 67, 69, 65];

test('arrows stay in the voice, Ctrl goes by the bar, Home and End to the ends; it is said where one is', async ({
  page,
}) => {
  const bass = `<backup><duration>8</duration></backup>${noteXml({ midi: 48, onset: 0, length: 8, voice: 2 })}`;
  await openBars(page, 'ways.musicxml', [eighths(TUNE) + bass, eighths(OTHER)]);
  await note(page, 'n1').click();
  await page.keyboard.press('ArrowRight');
  expect(await selected(page)).toBe('n2');
  await page.keyboard.press('ArrowDown');
  expect(await selected(page)).toBe('n9');
  await expect(page.getByTestId('spoken')).toHaveText(/low C, finger 3, string 5, pencil, bar 1/);
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Control+ArrowRight');
  expect(await selected(page)).toBe('n10');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Control+ArrowLeft');
  expect(await selected(page)).toBe('n10');
  await page.keyboard.press('Home');
  expect(await selected(page)).toBe('n1');
  await page.keyboard.press('End');
  expect(await selected(page)).toBe('n17');
  // The focus goes along: a key of the browser works on the note where one is.
  expect(await page.evaluate(() => document.activeElement?.getAttribute('data-note'))).toBe('n17');
});

test('no key makes nonsense: it is refused with the reason, or frees what it contradicts', async ({
  page,
}) => {
  await importAndOpen(page, 'nonsense.musicxml', [
    { midi: 40, onset: 0, length: 2 },
    { midi: 59, onset: 2, length: 2 },
    { midi: 60, onset: 4, length: 2 },
  ]);
  await note(page, 'n1').click();
  await page.keyboard.press('1');
  await expect(page.getByRole('alert')).toContainText('low E is only an open string here');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'pencil');
  await page.keyboard.press('q');
  await expect(page.getByRole('alert')).toContainText('low E lies below string 1');
  await note(page, 'n2').click();
  await page.keyboard.press('w');
  await page.keyboard.press('3');
  await expect(page.getByRole('alert')).toContainText('Finger 3 needs another string');
  await expect(mark(page, 'finger', 'n2')).toHaveText('3');
  await expect(mark(page, 'string', 'n2')).toHaveText(/3|4/);
  await expect(page.getByText('Everything can be played')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'finger', 'n2')).toHaveText('0');
});

test('a passage is marked, inked, copied to the same music, planned anew and given back, each by one key', async ({
  page,
}) => {
  await openBars(page, 'passages.musicxml', [eighths(TUNE), eighths(OTHER), eighths(TUNE), eighths(OTHER)]);
  await note(page, 'n1').click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.locator('[data-ranged]')).toHaveCount(3);
  await expect(page.getByTestId('range')).toContainText('bar 1, 3 notes');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveText('3 notes inked.');
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(3);
  await page.keyboard.press('b');
  await expect(page.locator('[data-ranged]')).toHaveCount(8);
  await page.keyboard.press(']');
  await expect(page.locator('[data-ranged]')).toHaveCount(16);
  await expect(page.getByTestId('range-cost')).toContainText('nothing easier exists');
  await page.keyboard.press('=');
  await expect(page.getByRole('alert')).toHaveText('Copied to 2 bars of the same music: 3, 4.');
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(19);
  // One gesture, one step back.
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(3);
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Backspace');
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(0);
  // In another position: nothing of what is marked is left below it, but for open strings.
  await note(page, 'n1').click();
  await page.keyboard.press('b');
  await page.getByTestId('range').getByLabel('Position').selectOption({ label: 'V' });
  await page.getByRole('button', { name: 'Plan anew and ink' }).click();
  await expect(page.getByRole('alert')).toContainText('8 notes planned anew and inked');
  await expect(mark(page, 'string', 'n1')).toHaveText('2');
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('range')).toHaveCount(0);
  await page.keyboard.press('Control+Enter');
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(32);
  await saved(page);
});

test('everything is found by name; tabs go by the arrows', async ({ page }) => {
  await importAndOpen(page, 'palette.musicxml');
  await page.keyboard.press('Control+k');
  const palette = page.getByRole('dialog', { name: 'Everything that can be done' });
  await palette.getByRole('combobox').fill('whole piece');
  await expect(palette.getByRole('option').first()).toContainText('ink the whole piece');
  await page.keyboard.press('Enter');
  await expect(palette).toBeHidden();
  await expect(page.locator('[data-mark=finger][data-state=ink]')).toHaveCount(10);
  await page.getByRole('tab', { name: 'Note' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Steps' })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Alt+5');
  await expect(page.getByRole('tab', { name: 'Score' })).toHaveAttribute('aria-selected', 'true');
});

test('one steps through a passage: what each hand does, and round and round', async ({ page }) => {
  await importAndOpen(page, 'steps.musicxml');
  await note(page, 'n1').click();
  await page.keyboard.press('j');
  const walk = page.getByTestId('walk');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 1');
  await expect(walk.getByTestId('walk-left')).toContainText('place 3 on string 5');
  await page.keyboard.press('j');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 1.5');
  expect(await selected(page)).toBe('n2');
  // What is marked is gone round.
  await page.keyboard.press('Shift+ArrowRight');
  await expect(walk.getByLabel('Goes round')).toHaveValue('passage');
  await page.keyboard.press('j');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 1.5');
  await page.keyboard.press(';');
  await expect(walk.getByTestId('walk-place')).toHaveText('Bar 1, beat 2');
});

test('steps back outlive a look at the survey; a named state is compared and brought back', async ({
  page,
}) => {
  await importAndOpen(page, 'history.musicxml');
  await note(page, 'n3').click();
  await page.keyboard.press('3');
  await saved(page);
  await page.getByRole('tab', { name: 'Score' }).click();
  await page.getByLabel('Name of this state').fill('first lesson');
  await page.getByRole('button', { name: 'Name this state' }).click();
  await expect(page.getByTestId('milestones')).toContainText('first lesson');
  await note(page, 'n5').click();
  await page.keyboard.press('2');
  await saved(page);
  await page.getByRole('link', { name: 'Survey' }).click();
  await expect(page.getByRole('heading', { name: 'Form' })).toBeVisible();
  await page.getByRole('link', { name: 'To the desk' }).click();
  await untilPlanned(page);
  expect(await selected(page)).toBe('n5');
  await page.getByRole('tab', { name: 'Score' }).click();
  await page.getByTestId('milestones').getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByTestId('compared')).toContainText('1 marks are not as at “first lesson”');
  await expect(page.getByTestId('compared')).toContainText('finger was nothing, is 2');
  await expect(page.locator('[data-corrected=n5]')).toBeVisible();
  await page.getByText('Who changed what').click();
  await expect(page.getByTestId('changes')).toContainText('finger 2');
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'finger', 'n5')).toHaveAttribute('data-state', 'pencil');
  await note(page, 'n1').click();
  await page.keyboard.press('1');
  await page.getByTestId('milestones').getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('alert')).toContainText('as it was at “first lesson”');
  await expect(mark(page, 'finger', 'n1')).toHaveAttribute('data-state', 'pencil');
  await expect(mark(page, 'finger', 'n3')).toHaveAttribute('data-state', 'ink');
});

test('the octave of the whole piece asks before it moves', async ({ page }) => {
  await importAndOpen(page, 'octaves.musicxml');
  await page.keyboard.press('Shift+E');
  await page.keyboard.press('o');
  const question = page.getByRole('alertdialog');
  await expect(question).toContainText('Move every note of the piece');
  await question.getByRole('button', { name: 'Leave it' }).click();
  await expect(question).toHaveCount(0);
  await page.keyboard.press('o');
  await question.getByRole('button', { name: 'Do it' }).click();
  await expect(page.getByText('moved by an octave')).toBeVisible();
});

test('hints come one by one and do not come again', async ({ page }) => {
  await importAndOpen(page, 'hints.musicxml');
  await expect(page.getByTestId('hint')).toContainText('Arrows go from note to note');
  await page.getByTestId('hint').getByRole('button').click();
  await page.getByTestId('hint').getByRole('button').click();
  await page.getByRole('button', { name: 'Got it' }).click();
  await expect(page.getByTestId('hint')).toHaveCount(0);
  await page.reload();
  await untilPlanned(page);
  await expect(page.getByTestId('hint')).toHaveCount(0);
});

test('a remark to the bar is written by key, stands over it, is exported and goes with undo', async ({
  page,
}) => {
  await importAndOpen(page, 'remarks.musicxml');
  await note(page, 'n1').click();
  await page.keyboard.press('Shift+R');
  const field = page.getByRole('textbox', { name: 'Remark to bar 1' });
  await expect(field).toBeFocused();
  await expect(field).toHaveValue('');
  await field.pressSequentially('let the bass sing under it');
  await page.keyboard.press('Enter');
  await expect(note(page, 'n1')).toBeFocused();
  await expect(page.locator('[data-mark=remark]')).toHaveText('let the bass sing under it');
  await expect(page.getByTestId('remark')).toContainText('Bar 1: let the bass sing under it');
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-mark=remark]')).toHaveCount(0);
  await page.keyboard.press('Control+y');
  // The keys go on where they were.
  await page.keyboard.press('ArrowRight');
  await expect(note(page, 'n1')).not.toBeFocused();
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await expect(page.locator('[data-mark=remark]')).toHaveText('let the bass sing under it');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save fingered score' }).click(),
  ]);
  expect(readFileSync(await file.path(), 'utf8')).toContain('let the bass sing under it');
  // Gone to another note in the middle of it, it is kept; Esc leaves what was there.
  await page.keyboard.press('Shift+R');
  await page.getByRole('textbox', { name: 'Remark to bar 1' }).fill('softly');
  await note(page, 'n4').click();
  await expect(page.locator('[data-mark=remark]')).toHaveText('softly');
  await page.keyboard.press('Shift+R');
  await page.getByRole('textbox', { name: 'Remark to bar 1' }).fill('not this');
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-mark=remark]')).toHaveText('softly');
  await page.keyboard.press('Shift+R');
  await page.getByRole('textbox', { name: 'Remark to bar 1' }).fill('');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-mark=remark]')).toHaveCount(0);
});

test('a slide is planned as one: the same finger on the same string', async ({ page }) => {
  await importAndOpen(page, 'slides.musicxml');
  await note(page, 'n1').click();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'What to do' }).fill('slide');
  await page.keyboard.press('Enter');
  await expect(mark(page, 'expression', 'n1')).toHaveText('slide');
  await untilPlanned(page);
  await expect(page.locator('main[aria-busy=false]')).toBeVisible();
  const placed = async (uid: string) => {
    await note(page, uid).click();
    const words = await page.getByTestId('spoken').textContent();
    return /finger \d, string \d/.exec(words ?? '')?.[0];
  };
  const first = await placed('n1');
  await page.keyboard.press('ArrowRight');
  const next = await page.locator('[data-note]:focus').getAttribute('data-note');
  await expect.poll(() => placed(next!)).toBe(first);
});

test('how a note is to sound is said by name, drawn, kept and taken back; over a passage it stands where it belongs', async ({
  page,
}) => {
  await importAndOpen(page, 'expressions.musicxml');
  await note(page, 'n1').click();
  const say = async (words: string) => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'What to do' }).fill(words);
    await page.keyboard.press('Enter');
  };
  await say('rather loud');
  await expect(mark(page, 'expression', 'n1')).toHaveText('mf');
  await say('near the bridge');
  await expect(mark(page, 'expression', 'n1')).toHaveCount(2);
  await page.keyboard.press('Control+z');
  await expect(mark(page, 'expression', 'n1')).toHaveCount(1);
  await note(page, 'n3').click();
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await say('accent');
  // Three of the tune, and the bass that is struck with the last of them.
  await expect(page.locator('[data-mark=expression]').filter({ hasText: '>' })).toHaveCount(4);
  await say('no articulation');
  await expect(page.locator('[data-mark=expression]')).toHaveCount(1);
  await saved(page);
  await page.reload();
  await untilPlanned(page);
  await expect(mark(page, 'expression', 'n1')).toHaveText('mf');
  // At every density: it is the teacher's word.
  await page.getByRole('button', { name: 'Fewest' }).click();
  await expect(mark(page, 'expression', 'n1')).toHaveText('mf');
});
