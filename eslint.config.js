import js from '@eslint/js';
import hooks from 'eslint-plugin-react-hooks';
import ts from 'typescript-eslint';

export default ts.config(
  {
    ignores: [
      'dist',
      'node_modules',
      '.cache',
      'coverage',
      'test/generated',
      'test/react-18',
      'test/package/fixture',
    ],
  },
  js.configs.recommended,
  ...ts.configs.strict,
  {
    files: ['**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': ['error', { checksVoidReturn: false }],
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-invalid-void-type': 'off',
      '@typescript-eslint/no-empty-function': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      'max-lines': ['error', 300],
      'max-lines-per-function': ['error', { max: 70, skipBlankLines: true, skipComments: true }],
      'no-restricted-exports': ['error', { restrictDefaultExports: { direct: true } }],
    },
  },
  {
    files: ['examples/**/*.tsx', 'examples/**/*.ts'],
    plugins: { 'react-hooks': hooks },
    rules: { ...hooks.configs.recommended.rules },
  },
  {
    files: [
      '**/*.config.{js,ts}',
      'examples/shared/routes.ts',
      '**/*.states.{ts,tsx}',
      'test/**',
      'bench/**',
      'src/react/stub-component.ts',
      // What stands for modules of Node has a default export, as they have.
      'src/chromium/in-page/node/*',
    ],
    rules: {
      'no-restricted-exports': 'off',
      'max-lines-per-function': 'off',
      '@typescript-eslint/no-dynamic-delete': 'off',
      '@typescript-eslint/no-extraneous-class': 'off',
      'max-lines': ['error', 300],
    },
  },
  {
    files: [
      'test/conformance/*',
      'test/mistakes/table.ts',
      'test/survey/cases.ts',
      'test/seam/fixture/behaviour.tsx',
    ],
    rules: { 'max-lines': 'off' },
  },
  {
    files: ['**/*.{js,mjs,cjs}'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        Buffer: 'readonly',
        module: 'writable',
        exports: 'readonly',
        require: 'readonly',
        setTimeout: 'readonly',
        performance: 'readonly',
        fetch: 'readonly',
        document: 'readonly',
        window: 'readonly',
        setImmediate: 'readonly',
        __dirname: 'readonly',
        globalThis: 'readonly',
        Response: 'readonly',
      },
    },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  // What runs in a page uses all that a page has.
  {
    files: ['test/browser/wire.mjs', 'test/browser/wire/*.mjs'],
    rules: { 'no-undef': 'off', 'max-lines-per-function': 'off' },
  },
);
