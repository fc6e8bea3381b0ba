/** Builds the server's worker thread: a Node.js program beside the web server. */
import { defineConfig } from 'vite';

export default defineConfig({
  build: {
    ssr: 'src/lib/server/jobs/thread.ts',
    outDir: 'build/thread',
    emptyOutDir: true,
    rollupOptions: { output: { entryFileNames: 'thread.js' } },
  },
});
