import { expect } from 'expect';

// Kept texts are of the runner's own file system.
const refuse = (name: string) => () => ({
  pass: false,
  message: () =>
    `${name}() compares with a file, and this test runs in a browser. Write down what is expected:   expect(…).toEqual(…)`,
});
const names = [
  ...['toMatchSnapshot', 'toMatchInlineSnapshot'],
  ...['toThrowErrorMatchingSnapshot', 'toThrowErrorMatchingInlineSnapshot'],
];
expect.extend(Object.fromEntries(names.map((name) => [name, refuse(name)])));
Object.assign(expect, { addSnapshotSerializer: () => undefined });

export { expect, expect as jestExpect };
