/** Bundled, so that all pieces are planned in one quick process. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: 'out/plans',
    emptyOutDir: false,
    rollupOptions: {
      input: { run: 'tests/long/samePlans.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
