import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { simulatedBackend } from 'simulacra/vite';

const backend = ['../shared/openapi.yaml', '../shared/schema.graphql', '../shared/routes.ts'];

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), simulatedBackend(backend)],
  server: { host: '127.0.0.1', port: 4170 },
  build: { outDir: '../../.cache/react-apiary', emptyOutDir: true },
});
