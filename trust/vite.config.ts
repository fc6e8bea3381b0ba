/** The probes run the application's own code, bundled as it is. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    // As deep as scripts/run, so that paths from there hold; not in build, which is made anew.
    outDir: 'out/trust',
    rollupOptions: {
      input: { run: 'trust/run.ts', fuzzThread: 'trust/fuzzThread.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
