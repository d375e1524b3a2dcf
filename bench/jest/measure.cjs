const { writeFileSync } = require('node:fs');

const took = async (work, times) => {
  const start = performance.now();
  for (let n = 0; n < times; n++) await work();
  return performance.now() - start;
};
const middle = (all) => all.sort((a, b) => a - b)[Math.floor(all.length / 2)];

/** The first ten of a fresh file, of the one way that BENCH_WAY names, then both in pairs. */
exports.measureInJest = ({ ours, bare }) =>
  globalThis.test(
    'measures',
    async () => {
      const first = await took(process.env.BENCH_WAY === 'ours' ? ours : bare, 10);
      const pairs = [];
      for (let n = 0; n < 400; n++) {
        const [a, b] =
          n % 2
            ? [await took(ours, 1), await took(bare, 1)]
            : [await took(bare, 1), await took(ours, 1)].reverse();
        if (n >= 100) pairs.push({ ours: a, floor: b, ratio: a / b });
      }
      const warm = Object.fromEntries(
        ['ours', 'floor', 'ratio'].map((key) => [key, middle(pairs.map((pair) => pair[key]))]),
      );
      writeFileSync(process.env.BENCH_OUT, JSON.stringify({ first, warm }));
    },
    120_000,
  );
