import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { svelteTesting } from '@testing-library/svelte/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  base: '/',
  plugins: [tailwindcss(), svelte(), svelteTesting()],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    // keeps light-dark() as it is written
    cssTarget: ['chrome123', 'edge123', 'firefox120', 'safari17.5'],
  },
  server: {
    port: 5173,
    strictPort: true,
    proxy: { '/api': 'http://127.0.0.1:8080' },
  },
  test: {
    environment: 'jsdom',
    include: ['src/**/*.test.ts'],
    setupFiles: ['./src/test-setup.ts'],
    // the first test of a file waits for all that it imports, beside other work
    testTimeout: 20_000,
  },
});
