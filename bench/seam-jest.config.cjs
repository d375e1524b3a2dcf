const { readdirSync, readFileSync } = require('node:fs');
const { join } = require('node:path');
const seams = require('../dist/seam-jest.cjs');

// What swaps cannot be run without the rewriting, so neither run has it.
const tests = join(__dirname, '../examples/react-apiary/test');
const swapping = readdirSync(tests).filter((name) =>
  /\bswap\b/.test(readFileSync(join(tests, name), 'utf8')),
);

const configuration = {
  rootDir: join(__dirname, '..'),
  testEnvironment: 'jsdom',
  testMatch: ['<rootDir>/examples/react-apiary/**/*.test.tsx'],
  testPathIgnorePatterns: swapping,
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/test/transform.cjs' },
  transformIgnorePatterns: ['/node_modules/', '/dist/'],
  cacheDirectory: join(__dirname, '../.cache', process.env.IS_BARE ? 'jest-bare' : 'jest-seams'),
};
module.exports = process.env.IS_BARE ? configuration : seams(configuration);
