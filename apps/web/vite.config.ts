import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type BuildOptions, type Plugin } from 'vite';

const target = process.env.ZESTING_DEV_SERVER ?? 'http://127.0.0.1:4310';

/** While developing, the small entries answer under their addresses, as the server has it. */
const entries: Plugin = {
  name: 'zesting-entries',
  configureServer(server) {
    server.middlewares.use((request, _response, next) => {
      const entry = /^\/(ask|room)\/(?!main|[\w-]+\.\w+)/.exec(request.url ?? '')?.[1];
      if (entry && request.headers.accept?.includes('text/html')) request.url = `/${entry}.html`;
      next();
    });
  },
};

type Output = NonNullable<BuildOptions['rolldownOptions']>['output'];

/** What several pages share lies together in few files, whatever their number: each file is a request. */
const shared = { name: 'shared', minShareCount: 2, entriesAware: true, entriesAwareMergeThreshold: 20_000 };
const named = ({ name }: { name: string }) => `assets/${name.startsWith('shared') ? 'shared' : '[name]'}-[hash].js`;

/**
 * The agency's application, and the pages of its clients, are built apart (tools/build.mjs): who opens the one hardly opens the other, and
 * neither waits for what only the other needs. The agency's come first and empty the folder.
 */
const built: Record<string, { input: Record<string, string>; output: Output }> = {
  agency: {
    input: { index: 'index.html' },
    output: {
      chunkFileNames: named,
      codeSplitting: {
        groups: [
          { name: 'first-packages', tags: ['$initial'], test: /node_modules/, priority: 3 },
          { name: 'first', tags: ['$initial'], priority: 2 },
          { name: 'common', minShareCount: 6, priority: 1 },
          shared,
        ],
      },
    },
  },
  clients: {
    input: { ask: 'ask.html', room: 'room.html' },
    output: { chunkFileNames: named, codeSplitting: { groups: [{ ...shared, entriesAwareMergeThreshold: 10_000 }] } },
  },
};
const which = process.env.ZESTING_PAGES ?? 'agency';

export default defineConfig(({ mode }) => ({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss(), entries],
  resolve: { conditions: ['source', 'module', 'browser', mode === 'production' ? 'production' : 'development'] },
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    emptyOutDir: which === 'agency',
    chunkSizeWarningLimit: 900,
    rolldownOptions: built[which],
  },
  // the origin stays as the browser sent it: the server compares it with the host
  server: { host: '127.0.0.1', proxy: { '/api': { target, changeOrigin: false }, '/feeds': { target, changeOrigin: false } } },
}));
