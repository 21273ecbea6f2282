import react from '@vitejs/plugin-react';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [react()],
  build: { target: 'es2022', assetsInlineLimit: 2048 },
  // Two cores that also compile are slow at a whole form.
  test: { testTimeout: 20_000, maxWorkers: '100%' },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
});
