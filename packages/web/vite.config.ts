import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 1500,
    // Pages that come in are read in documents of their own.
    rollupOptions: { input: ['index.html', 'reader.html'] },
  },
  worker: { format: 'es' },
  server: { port: 4320, proxy: { '/api': { target: 'http://127.0.0.1:4310', changeOrigin: true } } },
});
