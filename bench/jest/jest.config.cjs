const configuration = {
  rootDir: __dirname,
  testMatch: ['<rootDir>/*.bench.cjs'],
  testEnvironment: 'jsdom',
  transform: {},
  transformIgnorePatterns: ['.*'],
  reporters: [],
};
module.exports = configuration;
