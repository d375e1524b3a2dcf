const { join } = require('node:path');
const seams = require('../dist/seam-jest.cjs');

const configuration = {
  rootDir: join(__dirname, '..'),
  testEnvironment: 'jsdom',
  testMatch: ['<rootDir>/examples/react-apiary/**/*.test.tsx'],
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/test/transform.cjs' },
  transformIgnorePatterns: ['/node_modules/', '/dist/'],
  cacheDirectory: join(__dirname, '../.cache', process.env.IS_BARE ? 'jest-bare' : 'jest-seams'),
};
module.exports = process.env.IS_BARE ? configuration : seams(configuration);
