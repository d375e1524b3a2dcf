import { join } from 'node:path';
import { assets, scripts, tools } from './patterns';

const transformer = join(__dirname, 'vue-transform.cjs');

/* What Jest needs to load single-file components: spread it into the configuration. */
export const testEnvironment = 'jsdom';
// Component libraries ship ES modules that import style sheets.
export const transform = { [`\\.vue$|${assets}`]: transformer, [scripts]: transformer };
export const transformIgnorePatterns = [tools];
// Some packages give their server build to a CommonJS runner.
export const resolver = join(__dirname, 'vue-resolve.cjs');
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
