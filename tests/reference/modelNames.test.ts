/** What is stored is named by the program that made it: a comment changes nothing, a weight does. */
import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type ModelName, modelName } from '../../scripts/run/modelNames';

const root = fileURLToPath(new URL('../../', import.meta.url));
const copy = mkdtempSync(join(tmpdir(), 'oculon-names-'));
const first = new Map<ModelName, string>();

const edit = (file: string, change: (text: string) => string) => {
  const path = join(copy, file);
  const text = readFileSync(path, 'utf8');
  writeFileSync(path, change(text));
  expect(readFileSync(path, 'utf8')).not.toBe(text);
};

beforeAll(async () => {
  cpSync(join(root, 'src'), join(copy, 'src'), { recursive: true });
  for (const file of ['package.json', 'tsconfig.json', '.svelte-kit/tsconfig.json'])
    cpSync(join(root, file), join(copy, file));
  symlinkSync(join(root, 'node_modules'), join(copy, 'node_modules'));
  for (const name of ['PLANNER', 'ENGRAVER'] as const) first.set(name, await modelName(copy, name));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

describe('the names of the models', () => {
  it('are found again, wherever the sources lie', async () => {
    expect(await modelName(root, 'PLANNER')).toBe(first.get('PLANNER'));
    expect(first.get('ENGRAVER')).not.toBe(first.get('PLANNER'));
  });
  it('do not change with a comment, nor with what they are not made of', async () => {
    edit('src/core/fingering/left/rules/shift.ts', (text) => `/* A word more. */\n${text}// and another\n`);
    edit('src/lib/client/desk/shortcuts.ts', (text) => `${text}\nexport const more = 1;\n`);
    expect(await modelName(copy, 'PLANNER')).toBe(first.get('PLANNER'));
    expect(await modelName(copy, 'ENGRAVER')).toBe(first.get('ENGRAVER'));
  });
  it('change with a weight, and that of the page with how it is engraved', async () => {
    edit('src/core/fingering/left/rules/weights.json', (text) =>
      text.replace(/"squeak": \d+/, '"squeak": 41'),
    );
    expect(await modelName(copy, 'PLANNER')).not.toBe(first.get('PLANNER'));
    expect(await modelName(copy, 'ENGRAVER')).toBe(first.get('ENGRAVER'));
    edit('src/workers/engrave.ts', (text) => text.replace('spacingSystem: 14', 'spacingSystem: 15'));
    expect(await modelName(copy, 'ENGRAVER')).not.toBe(first.get('ENGRAVER'));
  });
});
