import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

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

export default defineConfig(({ mode }) => ({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss(), entries],
  resolve: { conditions: ['source', 'module', 'browser', mode === 'production' ? 'production' : 'development'] },
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    chunkSizeWarningLimit: 900,
    rollupOptions: { input: { index: 'index.html', ask: 'ask.html', room: 'room.html' } },
  },
  // the origin stays as the browser sent it: the server compares it with the host
  server: { host: '127.0.0.1', proxy: { '/api': { target, changeOrigin: false }, '/feeds': { target, changeOrigin: false } } },
}));
