// Isolates what fourteen component libraries export, each in a folder of its own beside the packed library:
//   node scripts/sweep.mjs            all of them
//   node scripts/sweep.mjs antd       one
import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const react = ['react@19.3', 'react-dom@19.3'];
const vue = ['vue@3.5'];
const angular = [
  ...['core', 'common', 'compiler', 'platform-browser', 'forms', 'router', 'animations'].map(
    (name) => `@angular/${name}@21.2`,
  ),
  ...['@angular/cdk@21', 'rxjs@7', 'zone.js@0.16', 'typescript@5.9'],
];

/** Each library, by what it needs beside it. */
const libraries = {
  '@mui/material': { framework: 'react', packages: [...react, '@emotion/react', '@emotion/styled'] },
  antd: { framework: 'react', packages: react },
  '@mantine/core': { framework: 'react', packages: [...react, '@mantine/hooks'] },
  'react-bootstrap': { framework: 'react', packages: react },
  '@radix-ui/themes': { framework: 'react', packages: react },
  '@chakra-ui/react': { framework: 'react', packages: [...react, '@emotion/react'] },
  primevue: { framework: 'vue', packages: vue, version: '4' },
  'reka-ui': { framework: 'vue', packages: vue },
  vuetify: { framework: 'vue', packages: vue },
  'element-plus': { framework: 'vue', packages: vue },
  'naive-ui': { framework: 'vue', packages: vue },
  '@angular/material': { framework: 'angular', packages: angular, version: '21' },
  primeng: { framework: 'angular', packages: angular, version: '21' },
  'ng-zorro-antd': { framework: 'angular', packages: angular, version: '21' },
};
const runner = ['jest@30', 'jest-environment-jsdom@30', 'jsdom@26'];

function prepare(name, { packages, version }) {
  const folder = join('.cache/sweep', name.replace('/', '-'));
  mkdirSync(folder, { recursive: true });
  if (!existsSync(join(folder, 'node_modules', name))) {
    writeFileSync(join(folder, 'package.json'), '{ "private": true }');
    const wanted = [...runner, ...packages, `${name}${version ? `@${version}` : ''}`];
    execFileSync('npm', ['install', '--no-audit', '--no-fund', '--legacy-peer-deps', ...wanted], {
      cwd: folder,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  }
  // As it is packed, with what turns a framework's files.
  const place = join(folder, 'node_modules/simulacra');
  rmSync(place, { recursive: true, force: true });
  mkdirSync(place, { recursive: true });
  cpSync('dist', join(place, 'dist'), { recursive: true });
  cpSync('package.json', join(place, 'package.json'));
  for (const one of [
    '@vue/compiler-sfc',
    'magic-string',
    '@jridgewell/sourcemap-codec',
    'esbuild',
    '@esbuild',
  ])
    if (existsSync(join('node_modules', one)) && !existsSync(join(folder, 'node_modules', one)))
      cpSync(join('node_modules', one), join(folder, 'node_modules', one), { recursive: true });
  return folder;
}

const preset = {
  react: `{ testEnvironment: 'jsdom', transform: {}, setupFilesAfterEnv: ['simulacra/jest', 'simulacra/react'] }`,
  vue: `{ ...require('simulacra/vue/jest'), setupFilesAfterEnv: ['simulacra/jest'] }`,
  angular: `{ ...require('simulacra/angular/jest'), setupFilesAfterEnv: ['simulacra/jest'] }`,
};

function sweep(name) {
  const library = libraries[name];
  const folder = prepare(name, library);
  const { framework } = library;
  writeFileSync(join(folder, 'jest.config.js'), `module.exports = ${preset[framework]};\n`);
  for (const file of ['sweep.cjs', `${framework}.test.js`])
    cpSync(join('scripts/sweep', file), join(folder, file));
  rmSync(join(folder, 'seen.json'), { force: true });
  const { stderr } = spawnSync(process.execPath, ['node_modules/jest/bin/jest.js', '--silent=false'], {
    cwd: folder,
    env: { ...process.env, LIBRARY: name, NODE_ENV: 'test' },
    encoding: 'utf8',
    maxBuffer: 1e9,
  });
  if (!existsSync(join(folder, 'seen.json'))) {
    console.log(`${name}: nothing could be loaded`);
    console.log(stderr.split('\n').slice(0, 40).join('\n'));
    process.exitCode = 1;
    return undefined;
  }
  const seen = JSON.parse(readFileSync(join(folder, 'seen.json'), 'utf8'));
  const count = (fits) => seen.filter(fits).length;
  console.log(
    `${name}: ${seen.length} components, ${count(({ error }) => !error)} come up, ${count(({ depth }) => depth === 'up')} with depth 1, ` +
      `${count(({ left }) => left)} leave something behind, ${count(({ printed }) => printed)} print something`,
  );
  for (const { name: one, error, depth, left, printed } of seen)
    if (error || left || printed || depth !== 'up')
      console.log(
        `  ${one}: ${[error, depth === 'up' ? '' : `depth: ${depth}`, left && `left ${left}`, printed && `printed ${printed}`].filter(Boolean).join(' | ').slice(0, 400)}`,
      );
  return seen;
}

/** One line of the table: how many came up, and what the others were told. */
function row(name, seen) {
  const { version } = JSON.parse(
    readFileSync(join('.cache/sweep', name.replace('/', '-'), 'node_modules', name, 'package.json'), 'utf8'),
  );
  const count = (fits) => seen.filter(fits).length;
  const told = new Map();
  for (const { error } of seen) {
    if (!error) continue;
    const [code] = error.split(' ');
    told.set(code, (told.get(code) ?? 0) + 1);
  }
  const codes = [...told].sort((a, b) => b[1] - a[1]).map(([code, times]) => `${times} × ${code}`);
  return `| ${name} ${version} | ${seen.length} | ${count(({ error }) => !error)} | ${count(({ depth }) => depth === 'up')} | ${count(({ left }) => left)} | ${codes.join(', ')} |`;
}

/** What each package of a library leaves behind, each thing once. */
function leftBy(seen) {
  const left = new Map();
  for (const { printed } of seen)
    for (const [, library, what] of printed.matchAll(/the package "([^"]+)" left (.+?)\. If it may stay/g))
      left.set(library, (left.get(library) ?? new Set()).add(what.replace(/\bid="[^"]*"/, 'id="…"')));
  return left;
}

const asked = process.argv.slice(2);
for (const name of asked.length > 0 ? asked : Object.keys(libraries)) sweep(name);
// The tables have what each library's latest run saw.
const latest = Object.keys(libraries).map((name) => {
  const file = join('.cache/sweep', name.replace('/', '-'), 'seen.json');
  return [name, existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : undefined];
});
const rows = latest.map(([name, seen]) =>
  seen ? row(name, seen) : `| ${name} | its run did not end | | | | |`,
);
// One row for each package that leaves something.
const leaving = latest.flatMap(([name, seen]) =>
  [...leftBy(seen ?? [])].map(([library, all]) => {
    const things = [...all].map((what) => `\`${what}\``).join(', ');
    return `| ${name} | ${things} | \`leaks: ['${library}']\` |`;
  }),
);
writeFileSync(
  'docs/libraries.md',
  `# Component libraries

\`node scripts/sweep.mjs\` installs fourteen component libraries and isolates everything they export that looks like a component: with no
props but a text as children (React), inside the library's own provider or plugin where it has one, and with no set-up file. Then it
does the same with \`depth: 1\`, and takes each down. Sixty components of six libraries are isolated with the props they need by
\`npm test\`.

Parts that need props, or the component they belong to (\`AccordionItem\` without \`Accordion\`), cannot come up alone. The last column
has the message of that failure.

| Library | Components | Come up | With \`depth: 1\` | Leave something | The others fail with |
| --- | --- | --- | --- | --- | --- |
${rows.join('\n')}

## What a library itself leaves

A library keeps some things for the next component of its kind: a place for pop-ups, a listener, an observer. It is reported once, and
does not fail. Elements without content in the body are among them.

| Library | Leaves | To let it stay |
| --- | --- | --- |
${leaving.join('\n')}
`,
);
