import { join } from 'node:path';

/* What Jest needs to load Angular: spread it into the configuration. */
export const testEnvironment = 'jsdom';
export const transform = { '\\.(ts|mts|mjs|js)$': join(__dirname, 'angular-transform.cjs') };
// The framework and many of its packages ship ES modules.
export const transformIgnorePatterns = ['/node_modules/(?!.*\\.mjs$)'];
