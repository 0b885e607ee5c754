import tailwindcss from '@tailwindcss/vite';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

const conditions = ['source', 'module', 'browser', 'production'];

export default defineConfig({
  plugins: [vue(), tailwindcss()],
  resolve: { conditions },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 1500, assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:4680' } },
});
