// What the rewriter costs: on a file, on a call that nobody swapped, and on a run of Jest.
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { parseSync } from 'oxc-parser';
import { rewrite } from '../test/seam/rewriter.mjs';
import { compare } from './measure.mjs';

const filesIn = (folder) =>
  readdirSync(folder, { recursive: true })
    .map((name) => join(folder, name))
    .filter((file) => /\.tsx?$/.test(file) && !/\.(test|d)\./.test(file));

async function rewriting() {
  const folders = ['examples/react-apiary/src', 'node_modules/@tanstack/react-query/src', 'src/stage'];
  const texts = folders.flatMap(filesIn).map((file) => [file, readFileSync(file, 'utf8')]);
  const options = { form: 'commonjs', runtime: 'simulacra/seam' };
  const result = await compare({
    ours: () => texts.forEach(([file, code]) => rewrite(code, file, options)?.code),
    // The parser hands its tree out when it is asked for, which is most of the work.
    floor: () =>
      texts.forEach(([file, code]) => parseSync(file, code, { preserveParens: false }).program.body),
    rounds: 31,
  });
  return { name: `rewriting ${texts.length} files`, against: 'parsing them', goal: 2, ...result };
}

const calls = 1_000_000;

async function calling() {
  const require = createRequire(import.meta.url);
  const { open } = require('../dist/seam.cjs');
  const weigh = (kilograms) => kilograms + 1;
  const exports = { __esModule: true, weigh };
  const seam = open(
    Object.assign(() => exports, { resolve: (name) => name }),
    { exports: {} },
    'bench',
  );
  const link = seam.link(['./weigh'], () => exports, { weigh: 1 });
  // As a rewritten file has it, and as one has it that was only turned into CommonJS.
  const weigh$ = () => link().weigh;
  const through = () => {
    let sum = 0;
    for (let at = 0; at < calls; at++) sum = weigh$()(sum);
    return sum;
  };
  const direct = () => {
    let sum = 0;
    for (let at = 0; at < calls; at++) sum = (0, exports.weigh)(sum);
    return sum;
  };
  const result = await compare({ ours: through, floor: direct, rounds: 51 });
  const more = ((result.ours - result.floor) / calls) * 1e6;
  return {
    name: 'a million calls of an import nobody swapped',
    against: 'called directly',
    ...result,
    goal: '20 ns more each',
    isMet: more <= 20,
    why: `${more.toFixed(1)} ns more each call.`,
  };
}

async function running() {
  const config = resolve('bench/seam-jest.config.cjs');
  const run = (more) => () => {
    const env = { ...process.env, ...more };
    const { status, stderr } = spawnSync('npx', ['jest', '-c', config], { env, encoding: 'utf8' });
    if (status !== 0) throw new Error(stderr);
  };
  const result = await compare({ ours: run({}), floor: run({ IS_BARE: '1' }), rounds: 7, warmUp: 1 });
  return {
    name: "Jest on the React example's tests that swap nothing, rewritten",
    against: 'not rewritten',
    goal: 1.1,
    ...result,
  };
}

/** Every row about the rewriter. */
export const seaming = async () => [await rewriting(), await calling(), await running()];
