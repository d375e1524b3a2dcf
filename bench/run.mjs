// Measures each hot path against the bare framework in the same run, and writes bench/RESULTS.md.
import { writeFile } from 'node:fs/promises';
import { spawnSync } from 'node:child_process';
import os from 'node:os';
import { loading } from './loading.mjs';
import { looking } from './looking.mjs';
import { mounting } from './mounting.mjs';
import { answering } from './answering.mjs';

const rows = await mounting();
// Loaded only now, so that they do not weigh on what comes before them.
rows.push(...(await (await import('./mounting-vue.mjs')).mountingVue()));
rows.push(...(await (await import('./mounting-angular.mjs')).mountingAngular()));
const { timing } = await import('./timing.mjs');
const { acting } = await import('./acting.mjs');
const { verifying } = await import('./states.mjs');
const { transforming } = await import('./transforming.mjs');
const { seaming } = await import('./seam.mjs');
for (const measure of [looking, answering, timing, acting, verifying, transforming, seaming, loading]) {
  console.error(`measuring ${measure.name}`);
  rows.push(...(await measure()));
}
rows.push(...(await import('./in-jest.mjs')).measuringInJest());
console.error('measuring a survey');
rows.push(...(await (await import('./survey.mjs')).surveying()));
// In a process of its own: what the rows before have left would be collected while these are timed.
const grown = spawnSync(process.execPath, ['--expose-gc', 'bench/growth.mjs'], {
  encoding: 'utf8',
  stdio: ['ignore', 'pipe', 'inherit'],
});
const growth = { lines: grown.stdout.trim().split('\n'), kept: grown.status === 0 };
console.error('measuring drafts');
const drafts = await (await import('./draft.mjs')).drafting();
const browsing = await (await import('./sheet.mjs')).sheeting();
rows.push(...browsing.rows);
const mostKept = 1.15;
const remembered = browsing.memory.map(
  ({ name, early, late, ratio }) =>
    `| ${name} | ${early.toFixed(0)} MB | ${late.toFixed(0)} MB | ${ratio.toFixed(2)} | ${mostKept} | ${ratio <= mostKept ? 'met' : 'missed'} |`,
);

const say = (n) => (n < 0.1 ? `${(n * 1000).toFixed(1)} µs` : `${n.toFixed(n < 10 ? 2 : 0)} ms`);
const kept = ({ ratio, goal, isMet = ratio <= goal }) => (goal === undefined ? '' : isMet ? 'met' : 'missed');
const lines = rows.map(
  (row) =>
    `| ${row.name} | ${say(row.ours)} | ${row.against}: ${say(row.floor)} | ${row.ratio.toFixed(2)} | ${row.goal ?? '–'} | ${kept(row)} |`,
);
const text = `# What it costs

Each row is measured in one run, in pairs, against the bare framework (\`npm run bench\`): the middle of
many rounds. The ratio is ours to the floor; the goal is the most it may be.

| What | Ours | The floor | Ratio | Goal | |
| --- | --- | --- | --- | --- | --- |
${lines.join('\n')}

${rows.flatMap(({ name, why }) => (why ? [`- **${name}**: ${why}`] : [])).join('\n')}

## How it grows

Each row has a bound; a run that misses one fails (\`node --expose-gc bench/growth.mjs\`).

| What | How much | Took | Bound | |
| --- | --- | --- | --- | --- |
${growth.lines.join('\n')}

## What it keeps in a browser

The memory of the command, of Chromium and of all they started: in the first half, and at the end.

| What | In the first half | At the end | Ratio | Goal | |
| --- | --- | --- | --- | --- | --- |
${remembered.join('\n')}

${drafts}
Measured on ${os.cpus().length} cores, Node ${process.versions.node}, React ${(await import('react')).version}, Vue ${(await import('vue')).version}, Angular ${(await import('@angular/core')).VERSION.full}, jsdom 26.
`;
await writeFile(new URL('./RESULTS.md', import.meta.url), text);
console.log(text);
process.exit(
  growth.kept &&
    browsing.memory.every(({ ratio }) => ratio <= mostKept) &&
    !rows.some((row) => kept(row) === 'missed' && !row.why)
    ? 0
    : 1,
);
