/** The command line as a program of its own: it starts at once, and loads a reader when a file needs it. */
import { defineConfig } from 'vite';

export default defineConfig({
  publicDir: false,
  ssr: { noExternal: true, external: ['verovio', 'abcjs', 'pdfkit', 'svg-to-pdfkit'] },
  build: {
    ssr: 'src/cli/oculon.ts',
    outDir: 'build/cli',
    emptyOutDir: true,
    rollupOptions: { output: { entryFileNames: 'oculon.js', chunkFileNames: '[name].js' } },
  },
});
