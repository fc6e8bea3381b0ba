/** Where things stand, seen from the project's root. */
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';

export const ROOT = fileURLToPath(new URL('../../', import.meta.url)).replace(/\/$/, '');
export const MIGRATIONS = join(ROOT, 'db/migrations');
export const DEMO_FOLDER = join(ROOT, 'demo');
export const DEFAULT_DATA_FOLDER = join(ROOT, '.oculon');
