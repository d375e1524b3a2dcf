// The one command that proves it: lint, types, build, tests. Ends with a line that counts.
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { printSizes } from './sizes.mjs';

const bin = (name) => `node_modules/.bin/${name}`;
const report = '.cache/jest.json';
mkdirSync('.cache', { recursive: true });

const steps = [
  ['docs', process.execPath, ['scripts/reference.mjs']],
  ['format', bin('prettier'), ['--check', '--log-level=warn', '.']],
  ['lint', bin('eslint'), ['.']],
  ['types', bin('vue-tsc'), ['-p', '.', '--noEmit']],
  ['templates', bin('ngc'), ['-p', 'examples/angular-apiary', '--noEmit']],
  ['build', process.execPath, ['scripts/build.mjs']],
  ['tests', bin('jest'), ['--json', `--outputFile=${report}`, ...process.argv.slice(2)]],
];

for (const [name, command, args] of steps) {
  const start = performance.now();
  const { status } = spawnSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'] });
  const seconds = ((performance.now() - start) / 1000).toFixed(1);
  console.log(`${status === 0 ? 'ok    ' : 'failed'}  ${name}  ${seconds} s`);
  if (name === 'build' && status === 0 && !printSizes()) process.exit(1);
  if (status !== 0 && name !== 'tests') process.exit(1);
}

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
