/**
 * The name of a model: a digest of its minified program with its weights, so that a comment changes nothing and a
 * weight does. What is stored under it is made anew whenever it would come out differently, and nobody has to remember
 * to raise a number.
 */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { build, type Plugin, type Rollup } from 'vite';

const MODELS = { PLANNER: 'src/workers/preparePlan.ts', ENGRAVER: 'src/workers/preparePage.ts' } as const;
export type ModelName = keyof typeof MODELS;

/** Too large to look into: named by its version. */
const BY_VERSION = ['verovio'];

/** @param root folder of the sources */
export async function modelName(root: string, model: ModelName): Promise<string> {
  const made = await build({
    root,
    configFile: false,
    publicDir: false,
    logLevel: 'error',
    ssr: { noExternal: true, external: BY_VERSION },
    build: {
      ssr: join(root, MODELS[model]),
      write: false,
      minify: true,
      rollupOptions: { external: BY_VERSION.map((name) => new RegExp(`^${name}(/|$)`)) },
    },
  });
  const outputs = (Array.isArray(made) ? made : [made]) as Rollup.RollupOutput[];
  const digest = createHash('sha256');
  for (const { output } of outputs)
    for (const file of output) digest.update(file.type === 'chunk' ? file.code : file.source);
  for (const name of BY_VERSION) digest.update(versionOf(root, name));
  return digest.digest('hex').slice(0, 16);
}

function versionOf(root: string, name: string): string {
  const text = readFileSync(join(root, 'node_modules', name, 'package.json'), 'utf8');
  return (JSON.parse(text) as { readonly version: string }).version;
}

const ID = 'virtual:model-names';

/** `import { PLANNER, ENGRAVER } from 'virtual:model-names'`. */
export function modelNames(): Plugin {
  let root = '';
  return {
    name: 'model-names',
    configResolved: (config) => void (root = config.root),
    resolveId: (id) => (id === ID ? `\0${ID}` : null),
    async load(id) {
      if (id !== `\0${ID}`) return null;
      const names = Object.keys(MODELS) as ModelName[];
      const lines: string[] = [];
      for (const name of names)
        lines.push(`export const ${name} = ${JSON.stringify(await modelName(root, name))};`);
      return lines.join('\n');
    },
  };
}
