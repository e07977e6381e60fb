import react from '@vitejs/plugin-react';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  server: { port: 4601, strictPort: true, proxy: { '/api': 'http://127.0.0.1:4600' } },
  worker: { format: 'es' },
  build: {
    outDir: '../dist/web',
    emptyOutDir: true,
    target: 'es2022',
    manifest: true,
    // Fonts stay files: the content policy has no `data:` for them.
    assetsInlineLimit: (file) => (/\.woff2?$/.test(file) ? false : undefined),
    chunkSizeWarningLimit: 1500,
  },
});
