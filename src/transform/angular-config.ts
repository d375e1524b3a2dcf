import { join } from 'node:path';

/* What Jest needs to load Angular: spread it into the configuration. */
export const testEnvironment = 'jsdom';
export const transform = { '\\.(ts|mts|mjs|js)$': join(__dirname, 'angular-transform.cjs') };
// The framework comes as standard modules, and so do many packages made for it.
export const transformIgnorePatterns = ['/node_modules/(?!.*\\.mjs$)'];
