/** Imports point one way: routes → lib → core; workers, print and cli → core. The core knows neither Node nor the DOM. */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const src = fileURLToPath(new URL('../../src/', import.meta.url));
const ALIASES: readonly (readonly [RegExp, string])[] = [
  [/^\$core\//, 'core/'],
  [/^\$lib\//, 'lib/'],
  [/^\$workers\//, 'workers/'],
];
/** What each part may use of the others. The desk starts the workers and shares their protocol. */
const MAY_USE: Readonly<Record<string, readonly string[]>> = {
  core: ['core'],
  workers: ['core', 'workers'],
  foreign: ['core', 'foreign'],
  print: ['core', 'print'],
  cli: ['core', 'cli', 'foreign', 'workers', 'print'],
  lib: ['core', 'lib', 'workers', 'foreign', 'print'],
  routes: ['core', 'lib', 'routes'],
};
const CORE_PACKAGES = new Set(['zod', 'saxes', 'fflate', 'midi-file']);

const filesBelow = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesBelow(path) : /\.(ts|svelte)$/.test(name) ? [path] : [];
  });

const importsOf = (path: string): string[] =>
  [...readFileSync(path, 'utf8').matchAll(/(?:from|import)\s*\(?\s*['"]([^'"]+)['"]/g)].map(
    (match) => match[1]!,
  );

const files = filesBelow(src).filter((path) => !/\.test\.ts$|\.d\.ts$/.test(path));

describe('import directions', () => {
  it.each(files.map((path) => [relative(src, path), path]))('%s', (name, path) => {
    const part = name.split('/')[0]!;
    for (const specifier of importsOf(path)) {
      const alias = ALIASES.find(([pattern]) => pattern.test(specifier));
      const local = alias
        ? specifier.replace(alias[0], alias[1])
        : specifier.startsWith('.')
          ? relative(src, resolve(dirname(path), specifier))
          : null;
      if (local !== null && !local.startsWith('app.'))
        expect(MAY_USE[part] ?? Object.keys(MAY_USE), `${name} → ${local}`).toContain(local.split('/')[0]);
      if (local === null && part === 'core')
        expect([...CORE_PACKAGES], `${name} → ${specifier}`).toContain(specifier);
    }
    if (part === 'core')
      expect(readFileSync(path, 'utf8')).not.toMatch(
        /\b(window\.[a-z]|document\.(body|create|query|get)|process\.|localStorage|globalThis)/,
      );
  });

  it('looks at every part', () => {
    expect(files.length).toBeGreaterThan(60);
  });
});
