import angular from '@analogjs/vite-plugin-angular';
import { defineConfig } from 'vite';
import { simulatedBackend } from '../shared/vite-backend';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [angular({ tsconfig: `${import.meta.dirname}/tsconfig.json` }), simulatedBackend()],
  server: { host: '127.0.0.1', port: 4172 },
  build: { outDir: '../../.cache/angular-apiary', emptyOutDir: true },
});
