import { join } from 'node:path';
import { assets, scripts } from './patterns';

const transformer = join(__dirname, 'vue-transform.cjs');

/* What Jest needs to load single-file components: spread it into the configuration. */
export const testEnvironment = 'jsdom';
// Component libraries come as standard modules, and bring their styles along.
export const transform = { [`\\.vue$|${assets}`]: transformer, [scripts]: transformer };
export const transformIgnorePatterns: string[] = [];
// Some packages hand a CommonJS runner what they have for servers.
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
