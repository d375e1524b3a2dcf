const vue = require('./dist/vue-jest.cjs');
const angular = require('./dist/angular-jest.cjs');
const seams = require('./dist/seam-jest.cjs');

const plain = '<rootDir>/test/transform.cjs';
const source = {
  transform: { '\\.[cm]?[jt]sx?$': plain },
  testEnvironment: 'jsdom',
  modulePathIgnorePatterns: ['<rootDir>/.cache'],
  testPathIgnorePatterns: ['/node_modules/', '/fixture/'],
};
const here = process.env.BUILT
  ? {
      '^simulacra$': '<rootDir>/dist/index.cjs',
      '^simulacra/(react|vue|angular|jest|har)$': '<rootDir>/dist/$1.cjs',
    }
  : {
      '^simulacra$': '<rootDir>/src/index.ts',
      '^simulacra/(react|vue|angular|jest|har)$': '<rootDir>/src/$1/index.ts',
    };
// What runs in Node alone has no other form.
const ofNode = {
  '^simulacra/serve$': '<rootDir>/src/serve/index.ts',
  '^simulacra/vite$': '<rootDir>/src/serve/vite.ts',
};
const fromSource = {
  ...here,
  ...ofNode,
  '^@/(.*)$': '<rootDir>/test/seam/fixture/src/$1',
};
const react18 = {
  '^react$': '<rootDir>/test/react-18/node_modules/react',
  '^react/(.*)$': '<rootDir>/test/react-18/node_modules/react/$1',
  '^react-dom$': '<rootDir>/test/react-18/node_modules/react-dom',
  '^react-dom/(.*)$': '<rootDir>/test/react-18/node_modules/react-dom/$1',
};

// What is tested from its source is not rewritten itself, only what stands for a user's own files.
const withSeams = (project) => {
  const { transform, ...rest } = seams(project);
  return { ...rest, transform: { '<rootDir>/src/.+\\.tsx?$': plain, ...transform } };
};
// The scripts of this project go their own way.
const [[files, transformer]] = Object.entries(vue.transform);
const withVue = { ...source, ...vue, transform: { [files]: transformer, ...source.transform } };

// Files that declare states are tests of them.
const withStates = { setupFilesAfterEnv: ['simulacra/jest-states'] };

module.exports = {
  testTimeout: 60_000,
  // What runs a process of its own waits for it meanwhile.
  maxWorkers: '100%',
  projects: [
    withSeams({
      ...withVue,
      displayName: 'library',
      testMatch: ['<rootDir>/test/**/*.test.ts?(x)'],
      testPathIgnorePatterns: [...source.testPathIgnorePatterns, 'angular'],
      moduleNameMapper: fromSource,
    }),
    withSeams({
      ...source,
      ...angular,
      displayName: 'angular',
      testMatch: ['<rootDir>/test/**/*angular*.test.ts'],
      moduleNameMapper: fromSource,
    }),
    withSeams({
      ...source,
      displayName: 'react-18',
      testMatch: [
        '<rootDir>/test/conformance/react.test.tsx',
        '<rootDir>/test/mistakes/react.test.tsx',
        '<rootDir>/test/rest/react.test.tsx',
      ],
      moduleNameMapper: { ...fromSource, ...react18 },
    }),
    // The mistakes once more, with modules as they are: every one is told in the same words.
    {
      ...withVue,
      displayName: 'plain',
      globals: { PLAIN: true },
      testMatch: ['<rootDir>/test/mistakes/{react,vue}.test.ts?(x)'],
      moduleNameMapper: fromSource,
    },
    {
      ...source,
      ...angular,
      displayName: 'plain-angular',
      globals: { PLAIN: true },
      testMatch: ['<rootDir>/test/mistakes/angular.test.ts'],
      moduleNameMapper: fromSource,
    },
    // The specification in a real browser; what differs there has to fail.
    {
      displayName: 'chromium',
      runner: '<rootDir>/dist/chromium.cjs',
      testMatch: ['<rootDir>/test/browser/conformance/{react,vue,angular}.ts'],
      setupFiles: ['<rootDir>/test/browser/conformance/process.ts'],
      globals: { where: ' in Chromium' },
    },
    {
      displayName: 'recipes-chromium',
      runner: '<rootDir>/dist/chromium.cjs',
      testMatch: ['<rootDir>/test/recipes/*.test.ts?(x)'],
    },
    // The examples' own tests, as they are.
    ...['react', 'vue', 'angular'].map((framework) => ({
      displayName: `${framework}-example-chromium`,
      rootDir: `examples/${framework}-apiary`,
      runner: '<rootDir>/../../dist/chromium.cjs',
      testMatch: ['<rootDir>/**/*.{test,states}.{ts,tsx}'],
      ...withStates,
    })),
    // As a user has it: the built package, and nothing configured but the page and the rewriting.
    seams({
      ...source,
      displayName: 'example',
      ...withStates,
      testMatch: ['<rootDir>/examples/react-apiary/**/*.{test,states}.tsx'],
    }),
    seams({
      ...withVue,
      displayName: 'vue-example',
      ...withStates,
      testMatch: ['<rootDir>/examples/vue-apiary/**/*.{test,states}.ts'],
    }),
    seams({
      ...source,
      ...angular,
      displayName: 'angular-example',
      ...withStates,
      testMatch: ['<rootDir>/examples/angular-apiary/**/*.{test,states}.ts'],
    }),
  ],
};
