// The one command that proves it: lint, types, build, tests. Ends with a line that counts.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { printSizes } from './sizes.mjs';

const bin = (name) => `node_modules/.bin/${name}`;
const report = '.cache/jest.json';
mkdirSync('.cache', { recursive: true });

const first = ['docs', process.execPath, ['scripts/reference.mjs']];
const checks = [
  ['format', bin('prettier'), ['--check', '--log-level=warn', '.']],
  ['lint', bin('eslint'), ['.']],
  ['types', bin('vue-tsc'), ['-p', '.', '--noEmit']],
  ['templates', bin('ngc'), ['-p', 'scripts/templates.json']],
  ['build', process.execPath, ['scripts/build.mjs']],
];
const tests = ['tests', bin('jest'), ['--json', `--outputFile=${report}`, ...process.argv.slice(2)]];

/** Runs one step, and prints what it said when it is over: steps may run beside each other. */
function run([name, command, args], stdio = 'pipe') {
  const start = performance.now();
  const step = spawn(command, args, { stdio: ['ignore', stdio, stdio] });
  const said = [];
  for (const stream of [step.stdout, step.stderr]) stream?.on('data', (text) => said.push(text));
  return new Promise((resolve) => {
    step.on('error', (error) => said.push(Buffer.from(String(error))));
    step.on('close', (status) => {
      process.stdout.write(Buffer.concat(said));
      const seconds = ((performance.now() - start) / 1000).toFixed(1);
      console.log(`${status === 0 ? 'ok    ' : 'failed'}  ${name}  ${seconds} s`);
      resolve(status === 0);
    });
  });
}

if (!(await run(first))) process.exit(1);
const passed = await Promise.all(checks.map((check) => run(check)));
if (!passed.every(Boolean) || !printSizes()) process.exit(1);
await run(tests, 'inherit');

const table = spawnSync(process.execPath, ['scripts/conformance.mjs'], { stdio: 'inherit' }).status;
const { numPassedTests, numFailedTests, numPendingTests, numFailedTestSuites } = JSON.parse(
  readFileSync(report, 'utf8'),
);
console.log(`${numPassedTests} passed, ${numFailedTests} failed, ${numPendingTests} skipped`);
process.exit(
  numFailedTests + numFailedTestSuites === 0 && numPassedTests > 0 && numPendingTests === 0 && table === 0
    ? 0
    : 1,
);
