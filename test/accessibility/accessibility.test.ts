/** @jest-environment node */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { runScript } from '../script';

type Read = Readonly<Record<string, unknown>>;
interface Row {
  readonly chapter: string;
  readonly html: string;
  /** Why the library differs from Chromium here. */
  readonly disputed: string;
  readonly chromium: Read;
  readonly browser: Read;
  readonly simulated: Read;
}

const file = join(__dirname, '../../docs/accessibility.md');
let rows: readonly Row[];
beforeAll(async () => {
  rows = await runScript<Row[]>('accessibility/compare.mjs');
}, 90_000);

const differences = (one: Read, other: Read) =>
  Object.keys(one).filter((key) => JSON.stringify(one[key]) !== JSON.stringify(other[key]));
const agrees = (one: Read, other: Read) =>
  differences(one, other).length === 0 && one['isHidden'] === other['isHidden'];
const unlike = (where: 'browser' | 'simulated') =>
  rows
    .filter(({ disputed }) => !disputed)
    .filter((row) => !agrees(row.chromium, row[where]))
    .map((row) => ({ html: row.html, chromium: row.chromium, [where]: row[where] }));

it('asks about enough to mean something', () => {
  expect(rows.filter(({ disputed }) => !disputed).length).toBeGreaterThan(700);
  const named = rows.filter(({ chromium }) => chromium['name']);
  expect(named.length).toBeGreaterThan(400);
});

it('reads in Chromium what its own accessibility tree has', () => {
  expect(unlike('browser')).toEqual([]);
});

it('reads the same in a simulated page', () => {
  expect(unlike('simulated')).toEqual([]);
});

it('differs where it says that it does, and gives a reason', () => {
  const disputed = rows.filter((row) => row.disputed);
  expect(disputed.filter((row) => agrees(row.chromium, row.browser)).map(({ html }) => html)).toEqual([]);
  expect(disputed.filter((row) => !agrees(row.browser, row.simulated)).map(({ html }) => html)).toEqual([]);
});

it('is told of in the docs as it is', () => {
  const made = print();
  if (process.env['UPDATE']) writeFileSync(file, made);
  expect(readFileSync(file, 'utf8')).toBe(made);
});

function print(): string {
  const chapters = [...new Set(rows.map(({ chapter }) => chapter))].map((chapter) => {
    const undisputed = rows.filter((row) => row.chapter === chapter && !row.disputed);
    const alike = (where: 'browser' | 'simulated') =>
      undisputed.filter((row) => agrees(row.chromium, row[where])).length;
    return `| ${chapter} | ${undisputed.length} | ${alike('browser')} | ${alike('simulated')} |`;
  });
  const cell = (text: unknown) => String(text).replace(/\|/g, '\\|').replace(/\n/g, ' ');
  const code = (text: unknown) => `\`${cell(text)}\``;
  const disputed = rows
    .filter((row) => row.disputed)
    .map((row) => {
      const keys = differences(row.chromium, row.browser);
      const tell = (read: Read) =>
        read['isHidden'] ? 'hidden' : keys.map((key) => `${key} ${JSON.stringify(read[key])}`).join(', ');
      return `| ${code(row.html)} | ${cell(tell(row.chromium))} | ${cell(tell(row.browser))} | ${row.disputed} |`;
    });
  return `# What assistive technology sees

Role, name, description and states of ${rows.length} snippets, as Chromium has them in its own accessibility tree and
as \`role\` and \`label\` read them: in Chromium, and in a simulated page (jsdom). A test compares them; this page is
what it found.

| What | Snippets | Alike in Chromium | Alike in a simulated page |
| --- | --- | --- | --- |
${chapters.join('\n')}

## Where the library differs from Chromium

Here the standard says something else, or a test is better served.

| Snippet | Chromium | This library | Why |
| --- | --- | --- | --- |
${disputed.join('\n')}
`;
}
