import angular from '@analogjs/vite-plugin-angular';
import { defineConfig } from 'vite';
import { simulatedBackend } from 'simulacra/vite';

const backend = ['../shared/openapi.yaml', '../shared/schema.graphql', '../shared/routes.ts'];

export default defineConfig({
  root: import.meta.dirname,
  plugins: [angular({ tsconfig: `${import.meta.dirname}/tsconfig.json` }), simulatedBackend(backend)],
  server: { host: '127.0.0.1', port: 4172 },
  build: { outDir: '../../.cache/angular-apiary', emptyOutDir: true },
});
