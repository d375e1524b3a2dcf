const vue = require('../../dist/vue-jest.cjs');

const configuration = {
  rootDir: __dirname,
  testMatch: ['<rootDir>/*.bench.cjs'],
  testEnvironment: 'jsdom',
  testEnvironmentOptions: vue.testEnvironmentOptions,
  transform: {},
  transformIgnorePatterns: ['.*'],
  reporters: [],
};
module.exports = configuration;
