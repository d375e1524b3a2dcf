import { join } from 'node:path';

/* What Jest needs to load single-file components: spread it into the configuration. */
export const testEnvironment = 'jsdom';
// Component libraries come as standard modules, and bring their styles along.
export const transform = {
  '\\.vue$|\\.(css|s[ac]ss|less|styl)$|node_modules.+\\.m?js$': join(__dirname, 'vue-transform.cjs'),
};
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
