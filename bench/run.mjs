// Measures each hot path against the bare framework in the same run, and writes bench/RESULTS.md.
import { writeFile } from 'node:fs/promises';
import os from 'node:os';
import { loading } from './loading.mjs';
import { looking } from './looking.mjs';
import { mounting } from './mounting.mjs';
import { answering } from './answering.mjs';

const rows = [...(await mounting()), ...(await looking()), ...(await answering()), ...(await loading())];

const say = (n) => (n < 0.1 ? `${(n * 1000).toFixed(1)} µs` : `${n.toFixed(n < 10 ? 2 : 0)} ms`);
const kept = ({ ratio, goal }) => (goal === undefined ? '' : ratio <= goal ? 'met' : 'missed');
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

Measured on ${os.cpus().length} cores, Node ${process.versions.node}, React ${(await import('react')).version}, jsdom 26.
`;
await writeFile(new URL('./RESULTS.md', import.meta.url), text);
console.log(text);
process.exit(rows.some((row) => kept(row) === 'missed' && !row.why) ? 1 : 0);
