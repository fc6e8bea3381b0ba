/** Figures are of code that is bundled as the application's is: what runs sources directly adds to every function. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    // As deep as scripts/run, so that paths from there hold; not in build, which is made anew.
    outDir: 'out/bench',
    rollupOptions: {
      input: { run: 'bench/run.ts', coldPlan: 'bench/coldPlan.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
