import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { simulatedBackend } from 'simulacra/vite';

const backend = ['../shared/openapi.yaml', '../shared/schema.graphql', '../shared/routes.ts'];

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue(), simulatedBackend(backend)],
  server: { host: '127.0.0.1', port: 4171 },
  build: { outDir: '../../.cache/vue-apiary', emptyOutDir: true },
});
