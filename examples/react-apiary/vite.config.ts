import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { simulatedBackend } from '../shared/vite-backend';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), simulatedBackend()],
  server: { host: '127.0.0.1', port: 4170 },
  build: { outDir: '../../.cache/react-apiary', emptyOutDir: true },
});
