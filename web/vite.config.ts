import react from '@vitejs/plugin-react';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [
    react(),
    // The shell and every stage start without the server; what is asked of it is kept elsewhere (src/api/kept).
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      manifest: {
        name: 'Bold Stance',
        short_name: 'Bold Stance',
        description: 'Ride height, caster and camber: planned, set and proved.',
        theme_color: '#231a33',
        background_color: '#f8f6fb',
        display: 'standalone',
        icons: [{ src: 'icon.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,woff2,svg}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        cleanupOutdatedCaches: true,
      },
    }),
  ],
  build: { target: 'es2022', assetsInlineLimit: 2048 },
  // Two cores that also compile are slow at a whole form.
  test: { testTimeout: 20_000, maxWorkers: '100%' },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
});
