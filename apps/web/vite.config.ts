import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const server = process.env.ZESTING_DEV_SERVER ?? 'http://127.0.0.1:4310';

export default defineConfig(({ mode }) => ({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ['source', 'module', 'browser', mode === 'production' ? 'production' : 'development'] },
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    chunkSizeWarningLimit: 900,
    rollupOptions: { input: { index: 'index.html', ask: 'ask.html', room: 'room.html' } },
  },
  server: { host: '127.0.0.1', proxy: { '/api': server, '/feeds': server } },
}));
