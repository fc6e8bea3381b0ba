/** Bundled, so that all passages are planned in one quick process. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: 'out/judgement',
    emptyOutDir: false,
    rollupOptions: {
      input: { run: 'calibration/judgement/run.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
