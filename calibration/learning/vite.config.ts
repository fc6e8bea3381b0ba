/** Bundled, so that all passages are planned in one quick process. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: 'out/learning',
    emptyOutDir: false,
    rollupOptions: {
      input: { run: 'calibration/learning/run.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
