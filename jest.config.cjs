const vue = require('./dist/vue-jest.cjs');
const angular = require('./dist/angular-jest.cjs');

const source = {
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/test/transform.cjs' },
  testEnvironment: 'jsdom',
  modulePathIgnorePatterns: ['<rootDir>/.cache'],
  testPathIgnorePatterns: ['/node_modules/', '/fixture/'],
};
const fromSource = {
  '^simulacra$': '<rootDir>/src/index.ts',
  '^simulacra/(react|vue|angular|jest)$': '<rootDir>/src/$1/index.ts',
};
const react18 = {
  '^react$': '<rootDir>/test/react-18/node_modules/react',
  '^react/(.*)$': '<rootDir>/test/react-18/node_modules/react/$1',
  '^react-dom$': '<rootDir>/test/react-18/node_modules/react-dom',
  '^react-dom/(.*)$': '<rootDir>/test/react-18/node_modules/react-dom/$1',
};

module.exports = {
  testTimeout: 30_000,
  projects: [
    {
      ...source,
      ...vue,
      transform: { ...vue.transform, ...source.transform },
      displayName: 'library',
      testMatch: ['<rootDir>/test/**/*.test.ts?(x)'],
      testPathIgnorePatterns: [...source.testPathIgnorePatterns, 'angular'],
      moduleNameMapper: fromSource,
    },
    {
      ...source,
      ...angular,
      displayName: 'angular',
      testMatch: ['<rootDir>/test/**/*angular*.test.ts'],
      moduleNameMapper: fromSource,
    },
    {
      ...source,
      displayName: 'react-18',
      testMatch: ['<rootDir>/test/conformance/react.test.tsx', '<rootDir>/test/mistakes/react.test.tsx'],
      moduleNameMapper: { ...fromSource, ...react18 },
    },
    {
      // As a user has it: the built package, and nothing configured but the page.
      ...source,
      displayName: 'example',
      testMatch: ['<rootDir>/examples/react-apiary/**/*.test.tsx'],
    },
    {
      ...source,
      ...vue,
      transform: { ...vue.transform, ...source.transform },
      displayName: 'vue-example',
      testMatch: ['<rootDir>/examples/vue-apiary/**/*.test.ts'],
    },
    {
      ...source,
      ...angular,
      displayName: 'angular-example',
      testMatch: ['<rootDir>/examples/angular-apiary/**/*.test.ts'],
    },
  ],
};
