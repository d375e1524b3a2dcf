import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { setTimeout } from 'node:timers/promises';
import { existsSync } from 'node:fs';
import { createServer } from 'node:net';
import { cli, makeProject } from './project';

const project = makeProject({
  'src/Loops.tsx':
    'export const Loops = () => {\n  for (;;) if (Date.now() < 0) break;\n  return <p>Never</p>;\n};\n',
  'src/Fills.tsx':
    'const kept: number[][] = [];\nexport const Fills = () => {\n  for (;;) if (kept.push(new Array<number>(1e6).fill(kept.length)) < 0) break;\n  return <p>Never</p>;\n};\n',
  'src/Exits.tsx': 'export const Exits = () => {\n  process.exit(0);\n  return <p>Never</p>;\n};\n',
  'src/Writes.tsx':
    "import { writeFileSync } from 'node:fs';\nexport const Writes = () => {\n  writeFileSync('written.txt', 'x');\n  return <p>It wrote a file</p>;\n};\n",
  'src/Reads.tsx':
    "import { readFileSync } from 'node:fs';\nexport const Reads = () => <p>It read {readFileSync('package.json', 'utf8').length} letters</p>;\n",
  'src/Connects.tsx':
    "import { connect } from 'node:net';\nexport const Connects = ({ port = 9 }) => {\n  connect(port, '127.0.0.1');\n  return <p>It connected</p>;\n};\n",
  'src/Nobody.tsx':
    'export const Nobody = ({ size }: { size: number }) => <div style={{ width: size }} />;\n',
  'src/Hidden.tsx':
    'const Hidden = () => <p>Hidden</p>;\nexport const Shown = () => <Hidden />;\nexport const Other = () => <p>Other</p>;\n',
  'src/Logs.tsx':
    "export const Logs = () => {\n  console.error('The smoker is empty');\n  return <p>Smoke</p>;\n};\n",
  'src/Tested.tsx': 'export const Tested = () => <p>Tested</p>;\n',
  'src/Tested.test.tsx': "it('is tested', () => undefined);\n",
});

describe('what a drafted component does harms only its own draft', () => {
  let said: { code: number; stdout: string };
  let connected = false;
  beforeAll(async () => {
    const server = createServer(() => (connected = true)).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const { port } = server.address() as { port: number };
    project.put(
      'src/Connects.tsx',
      `import { connect } from 'node:net';\nexport const Connects = () => {\n  connect(${port}, '127.0.0.1');\n  return <p>It connected</p>;\n};\n`,
    );
    said = await project.draft('--all', 'src', '--processes', '2', '--within', '14', '--print');
    server.close();
  }, 240_000);

  it.each([
    ['Loops', 'it was not done after 14 s'],
    ['Fills', 'it needs more than 1024 MB of memory'],
    ['Exits', 'it ends the process (process.exit called with "0")'],
    ['Writes', 'fs.writeFileSync() is refused while a draft is tried'],
    ['Reads', 'fs.readFileSync() is refused while a draft is tried'],
    ['Connects', 'net.connect() is refused while a draft is tried'],
    ['Logs', 'SIM-LOG-UNEXPECTED Logs logged an error that this test does not expect'],
    ['Nobody', 'It shows nothing, so there is nothing to say of it.'],
  ])('%s: %s', (name, why) => {
    const lines = said.stdout.split('\n');
    const at = lines.findIndex((line) => new RegExp(`^fails +${name} `).test(line));
    const reason = lines
      .slice(at + 1, at + 4)
      .map((line) => line.trim())
      .join(' ');
    expect(reason).toContain(why);
  });

  it('and others are drafted all the same', () => {
    expect(said.stdout).toMatch(/^passes +Shown /m);
    expect(said.stdout).toMatch(/^left as is +Tested +Tested\.test\.tsx is there/m);
    expect(said.stdout).toMatch(
      /^2 of 10 components drafted with a test that passes; 8 without; 2 left as they are$/m,
    );
    expect(said.code).toBe(1);
  });

  it('nothing is sent, written or left', () => {
    expect(connected).toBe(false);
    expect(existsSync(project.path('written.txt'))).toBe(false);
    expect(project.list().filter((file) => /draft-/.test(file))).toEqual([]);
  });
});

it.each([
  [['Nobdy'], 2, 'Did you mean simulacra draft Nobody'],
  [['src'], 2, 'Draft all components in it: simulacra draft --all src'],
  [['src/Hidden.tsx'], 2, 'simulacra draft src/Hidden.tsx#Shown'],
  [['src/Hidden.tsx#Hidden'], 2, 'Hidden is not exported by src/Hidden.tsx'],
  [['Tested'], 2, 'src/Tested.test.tsx is there already, and no draft has written it.'],
  [['Tested', '--within', 'soon'], 2, '--within was given "soon". It takes a number above 0.'],
  [['--all', 'src/Tested.tsx'], 2, '--all was given "src/Tested.tsx". It takes a folder.'],
  [[], 2, "missing required argument 'what'"],
])('a wrong call: draft %j', async (args, code, words) => {
  const said = await project.draft(...args);
  expect(said.words).toContain(words);
  expect(said.code).toBe(code);
});

const configured = makeProject({ 'src/Fine.tsx': 'export const Fine = () => <p>Fine</p>;' });
it.each([
  ['{ draft: { state: true } }', 'draft in simulacra.config was given "state". Did you mean states'],
  ["{ draft: { within: 'soon' } }", 'draft.within in simulacra.config was given "soon".'],
])('a configuration that says %s', async (said, words) => {
  configured.put('simulacra.config.ts', `export default ${said};`);
  const { code, words: told } = await configured.draft('Fine');
  expect(told).toContain(words);
  expect(code).toBe(2);
});

it('stopped by Ctrl+C it leaves nothing behind', async () => {
  configured.put('simulacra.config.ts', 'export default {};');
  const child = spawn(process.execPath, [cli, 'draft', 'Fine'], { cwd: configured.path('.') });
  const ended = once(child, 'exit');
  const tried = () => configured.list().some((name) => name.includes('.draft-'));
  for (let waited = 0; waited < 30_000 && !tried(); waited += 20) await setTimeout(20);
  expect(tried()).toBe(true);
  child.kill('SIGINT');
  expect(await ended).toEqual([130, null]);
  expect(configured.list()).toEqual(['Fine.tsx']);
});
