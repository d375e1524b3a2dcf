import { join } from 'node:path';

/* What Jest needs to load Angular: spread it into the configuration. */
export default {
  testEnvironment: 'jsdom',
  transform: { '\\.(ts|mts|mjs|js)$': join(__dirname, 'angular-transform.cjs') },
  // The framework comes as standard modules, and so do many packages made for it.
  transformIgnorePatterns: ['/node_modules/(?!.*\\.mjs$)'],
};
