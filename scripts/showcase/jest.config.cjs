// Runs the one test that fails on purpose, for its picture.
module.exports = {
  rootDir: '../..',
  testEnvironment: 'jsdom',
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/test/transform.cjs' },
  testMatch: ['<rootDir>/scripts/showcase/*.tsx'],
};
