import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    assetsInlineLimit: 0,
    // The pages that anyone may read have a style sheet and no script; the server finds its name in the manifest.
    manifest: true,
    rollupOptions: { input: ['index.html', 'src/frontpage/front.css'] },
  },
  test: {
    environment: 'jsdom',
    setupFiles: 'src/testing/window.ts',
    restoreMocks: true,
    css: { include: [/night.css/, /[lL]ook.css/] },
  },
  server: {
    proxy: { '/api': 'http://localhost:8080', '/media': 'http://localhost:8080', '/feeds': 'http://localhost:8080' },
  },
});
