// Runs the tests that fail on purpose, for their pictures.
module.exports = {
  rootDir: '../..',
  testEnvironment: 'jsdom',
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/test/transform.cjs' },
  testMatch: ['<rootDir>/scripts/showcase/*.tsx'],
};
