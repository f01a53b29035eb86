import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'src/console',
  plugins: [react()],
  build: { outDir: '../../dist/console', emptyOutDir: true, chunkSizeWarningLimit: 900 },
  server: { port: 4872, proxy: { '/api': 'http://127.0.0.1:4870', '/healthz': 'http://127.0.0.1:4870' } },
});
