// Runs what is described in a page, one test after the other, with Jest's own `expect`.
import { expect } from 'expect';

const tests = [];
let at = { name: '', before: [], after: [], parent: undefined };

function inside(suite, work) {
  const outer = at;
  at = suite;
  work();
  at = outer;
}
const describe = (name, work) =>
  inside({ name: at.name ? `${at.name} › ${name}` : name, before: [], after: [], parent: at }, work);
const it = (name, work, limit = 20_000) => {
  tests.push({ name: `${at.name} › ${name}`, work, limit, suite: at });
};

const fill = (name, values) => {
  const left = [...values];
  return name.replace(/%[sdpj]/g, () => String(left.shift()));
};
const each =
  (begin) =>
  (rows) =>
  (name, work, ...rest) => {
    for (const row of rows) {
      const values = Array.isArray(row) ? row : [row];
      begin(fill(name, values), () => work(...values), ...rest);
    }
  };
describe.each = each(describe);
it.each = each(it);

Object.assign(globalThis, {
  expect,
  describe,
  it,
  test: it,
  beforeEach: (work) => at.before.push(work),
  afterEach: (work) => at.after.push(work),
  // One suite is one run here.
  beforeAll: (work) => at.before.push(work),
  afterAll: () => undefined,
});

const chain = (suite) => (suite ? [...chain(suite.parent), suite] : []);
const withLimit = (work, milliseconds) => {
  let timer;
  const late = new Promise((_, reject) => {
    timer = wait(() => reject(new Error(`It took longer than ${milliseconds} ms`)), milliseconds);
  });
  return Promise.race([Promise.resolve().then(work), late]).finally(() => stop(timer));
};
// Taken before the code under test is loaded.
const [wait, stop] = [globalThis.setTimeout.bind(globalThis), globalThis.clearTimeout.bind(globalThis)];

/** Runs every test whose name has a text. @returns what failed, by name */
globalThis.runTests = async (only) => {
  const failed = {};
  const chosen = tests.filter(({ name }) => name.includes(only));
  for (const { name, work, limit, suite } of chosen) {
    const suites = chain(suite);
    const steps = [...suites.flatMap(({ before }) => before), work];
    const note = (error) => void (failed[name] ??= String(error?.message ?? error));
    try {
      await withLimit(async () => {
        for (const step of steps) await step();
      }, limit);
    } catch (error) {
      note(error);
    }
    for (const { after } of suites.reverse())
      for (const step of after) await withLimit(step, limit).catch(note);
  }
  return { count: chosen.length, failed };
};
