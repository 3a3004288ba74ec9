import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', chunkSizeWarningLimit: 900, assetsInlineLimit: 0 },
  test: { environment: 'jsdom', setupFiles: 'src/testing/window.ts', restoreMocks: true },
  server: {
    proxy: { '/api': 'http://localhost:8080', '/media': 'http://localhost:8080', '/feeds': 'http://localhost:8080' },
  },
});
