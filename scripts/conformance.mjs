// Makes docs/conformance.md out of what the last run of the tests saw. Fails where it was another before.
import { readFileSync, writeFileSync } from 'node:fs';

const file = 'docs/conformance.md';
// Which file comes first differs from run to run.
const tests = JSON.parse(readFileSync('.cache/jest.json', 'utf8'))
  .testResults.sort((a, b) => (a.name < b.name ? -1 : 1))
  .flatMap(({ assertionResults }) => assertionResults);
const isFramework = (name = '') => /^(React|Vue|Angular) [\d.]+( with zone\.js| in Chromium)?$/.test(name);
// The chapters of the specification, in the order they are written in.
const groups = [
  ...new Set(
    tests
      .filter(({ ancestorTitles: [name] }) => isFramework(name))
      .map(({ ancestorTitles: [, group] }) => group),
  ),
];
// Where a browser is known to do otherwise, the test has to fail.
const saw = (status, failing) => (status !== 'passed' ? 'no' : failing ? '[differs](browser.md)' : 'yes');
const rows = new Map();
const own = new Map();
const frameworks = new Set();
for (const { ancestorTitles, title, status, failing } of tests) {
  const [framework, group] = ancestorTitles;
  if (isFramework(framework)) {
    frameworks.add(framework);
    const key = `${group} | ${title}`;
    rows.set(key, { ...rows.get(key), [framework]: saw(status, failing) });
  } else if (/its own ways$/.test(framework ?? '')) {
    own.set(framework, [...(own.get(framework) ?? []), title]);
  }
}
const order = ['React 18', 'React', 'Vue', 'Angular'];
const rank = (name) => order.findIndex((start) => name.startsWith(start)) * 10 + name.length / 100;
const columns = [...frameworks].sort((a, b) => rank(a) - rank(b));
const cells = (row) => columns.map((name) => row[name] ?? '–').join(' | ');
const escape = (text) => text.replaceAll('|', '\\|').replaceAll('<', '&lt;');
const sections = groups.map((group) => {
  const lines = [...rows].filter(([key]) => key.startsWith(`${group} |`));
  return [
    `## ${group[0].toUpperCase()}${group.slice(1)}`,
    '',
    `| Behaviour | ${columns.join(' | ')} |`,
    `| --- | ${columns.map(() => '---').join(' | ')} |`,
    ...lines.map(([key, row]) => `| ${escape(key.slice(group.length + 3))} | ${cells(row)} |`),
  ].join('\n');
});
const owns = [...own]
  .sort(([a], [b]) => rank(a) - rank(b))
  .map(([name, titles]) =>
    [`### ${name}`, '', ...[...new Set(titles)].map((title) => `- ${escape(title)}`)].join('\n'),
  );
const text = `# One specification, every framework

Made by the run of the tests: each behaviour is stated once (test/conformance/specification.ts) and run
for every framework with components written in its own idiom.

${sections.join('\n\n')}

## What each has of its own

${owns.join('\n\n')}
`;
if (text !== readFileSync(file, 'utf8')) {
  writeFileSync(file, text);
  console.error(`${file} was made anew: look at it, and commit it`);
  process.exit(1);
}
