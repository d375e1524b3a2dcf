/* Run by bench/loading.mjs: what a test file pays, as Jest evaluates it. */
const { writeFileSync } = require('node:fs');

const took = (names) => {
  const start = performance.now();
  for (const name of names) require(name);
  return performance.now() - start;
};
const { before, floor, entries } = JSON.parse(process.env.BENCH_LOAD);
took(before);
const times = [took(floor), ...entries.map((entry) => took([entry]))];
writeFileSync(process.env.BENCH_OUT, JSON.stringify(times));

globalThis.test('loads', () => undefined);
