import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { modelNames } from './scripts/run/modelNames.ts';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit(), modelNames()],
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 9000 },
  test: {
    include: ['src/**/*.test.ts', 'tests/reference/**/*.test.ts', 'tests/server/**/*.test.ts'],
    testTimeout: 120_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
  },
});
