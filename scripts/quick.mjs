// For daily work: one framework's unit and conformance tests. usage: npm run quick [react | vue | angular]
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const [framework = 'react', ...more] = process.argv.slice(2);
if (!['react', 'vue', 'angular'].includes(framework)) {
  console.error(`npm run quick takes react, vue or angular; it was given "${framework}".`);
  process.exit(2);
}
const run = (command, args) => spawnSync(command, args, { stdio: 'inherit' }).status ?? 1;

// The runner's own transformers are taken from the built package, whatever its age.
if (!existsSync('dist/seam-jest.cjs') && run(process.execPath, ['scripts/build.mjs']) !== 0) process.exit(1);
const own = `(conformance|rest|mistakes)/${framework}`;
const shared = framework === 'react' ? '|core/|page/|network/|residue|react-early' : '|core/';
process.exit(
  run('node_modules/.bin/jest', [
    ...['--selectProjects', framework === 'angular' ? 'angular' : 'library'],
    ...['--testPathPatterns', `test/(${own}${shared})`],
    ...['--testNamePattern', '^(?!.*leaves the heap as it was)'],
    ...more,
  ]),
);
