import { join } from 'node:path';

/* What Jest needs to load single-file components: spread it into the configuration. */
export const testEnvironment = 'jsdom';
// Otherwise Vue's packages hand out what is meant for a bundler.
export const testEnvironmentOptions = { customExportConditions: ['node', 'node-addons'] };
export const transform = { '\\.vue$|node_modules.+\\.m?js$': join(__dirname, 'vue-transform.cjs') };
// Packages that come as standard modules only, or lean on one that does.
export const transformIgnorePatterns = ['/node_modules/(?!@tanstack/|.*\\.mjs$)'];
export const moduleFileExtensions = [
  'js',
  'mjs',
  'cjs',
  'jsx',
  'ts',
  'mts',
  'cts',
  'tsx',
  'vue',
  'json',
  'node',
];
