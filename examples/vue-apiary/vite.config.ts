import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { simulatedBackend } from '../shared/vite-backend';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue(), simulatedBackend()],
  server: { host: '127.0.0.1', port: 4171 },
  build: { outDir: '../../.cache/vue-apiary', emptyOutDir: true },
});
