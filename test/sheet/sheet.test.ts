/** @jest-environment node */
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { PNG } from 'pngjs';
import { complainOfXml } from './xml';
import { runScript } from '../script';
import type { Sheet, SheetComponent, SheetState } from '../../src/sheet/model';
import { hiveSign, makeProject, signCss, signStates, viteConfig } from './project';

const good = {
  'vite.config.mjs': viteConfig,
  'src/sign.css': signCss,
  'src/HiveSign.jsx': hiveSign('Hive'),
  'src/HiveSign.states.jsx': signStates,
};
const quick = ['--scheme', 'light', '--width', '300', '--no-accessibility', '--out', 'sheet'];
const readSheet = (file: string) => JSON.parse(readFileSync(file, 'utf8')) as Sheet;
const componentOf = (sheet: Sheet, name: string): SheetComponent =>
  sheet.components.find(({ file }) => file.includes(name))!;
const stateOf = (component: SheetComponent, name: string): SheetState =>
  component.states.find((state) => state.name === name)!;

describe('a sheet of states', () => {
  const project = makeProject(good);
  let sheet: Sheet;
  let outcome: Awaited<ReturnType<typeof project.sheet>>;
  beforeAll(async () => {
    outcome = await project.sheet(['--width', '300,500', '--out', 'sheet']);
    sheet = readSheet(project.path('sheet/sheet.json'));
  }, 120_000);

  it('tells what was drawn, and ends well', () => {
    expect(outcome.words).toMatch(
      /shown HiveSign 3 states 3 states of 1 component: all verified \([\d.]+ s\) sheet\/index\.html/,
    );
    expect(outcome.code).toBe(0);
  });

  it('has each state on each screen, with all that is known of it', () => {
    const sign = componentOf(sheet, 'HiveSign');
    expect(sign).toMatchObject({ component: 'HiveSign', file: 'src/HiveSign.states.jsx', project: '' });
    expect(sign.pairs).toEqual({ compared: 6, apart: 6 });
    const loaded = stateOf(sign, 'loaded');
    expect(loaded.line).toBe(8);
    expect(loaded.outline).toContain('heading "Hive <b>Anemone</b>" level 2');
    expect(loaded.chronicle).toMatch(/answered +GET \/api\/hives\/h1/);
    expect(loaded.declares).toEqual(["role('heading', /Anemone/)"]);
    expect(loaded.views.map(({ width, scheme }) => `${width} ${scheme}`).sort()).toEqual([
      ...['300 dark', '300 light', '500 dark', '500 light'],
    ]);
    expect(loaded.views.find(({ width }) => width === 300)!.problems).toEqual([]);
  });

  it('has pictures of just that width, in the colours of the scheme', () => {
    const { views } = stateOf(componentOf(sheet, 'HiveSign'), 'failed');
    const corner = (scheme: string) => {
      const { picture, width } = views.find((view) => view.scheme === scheme)!;
      const image = PNG.sync.read(readFileSync(project.path('sheet', picture!)));
      expect(image.width).toBe(width);
      return [...image.data.subarray(0, 3)];
    };
    expect([corner('light'), corner('dark')]).toEqual([
      [250, 247, 240],
      [23, 21, 15],
    ]);
  });

  it('has a report that continuous integration reads', () => {
    const xml = readFileSync(project.path('sheet/junit.xml'), 'utf8');
    expect(complainOfXml(xml)).toBe('');
    expect(xml).toMatch(/<testsuites name="states" tests="12" failures="0"/);
    expect(xml).toContain(
      '<testcase name="loaded (500, dark)" classname="HiveSign" file="src/HiveSign.states.jsx" line="8"',
    );
  });

  it('opens without a server, is found through by keyboard, and asks nobody for anything', async () => {
    const seen = await runScript<Record<string, unknown>>('sheet/look.mjs', project.path('sheet/index.html'));
    expect(seen).toEqual({
      counts: '3 states 1 component all verified',
      tiles: ['loading', 'failed', 'loaded'],
      drawn: 3,
      found: ['failed'],
      opened: 'HiveSign · loaded src/HiveSign.states.jsx:8',
      address: '#src%2FHiveSign%2Floaded',
      text: true,
      markup: 0,
      after: 'HiveSign · loading src/HiveSign.states.jsx:6',
      dark: 300,
      closed: true,
      linked: 'HiveSign · failed src/HiveSign.states.jsx:7',
      problems: [],
      requests: [],
      errors: [],
    });
  }, 60_000);
});

describe('a state that goes wrong', () => {
  const declared = (name: string, body: string) => `import { role } from 'simulacra';
import { states } from 'simulacra/react';
import { HiveSign } from './HiveSign';
const network = { 'GET /api/hives/h1': { name: 'Anemone' } };
export default states(HiveSign, { network, props: { hive: 'h1' } }, {
  ${name}: { ${body} },
  well: { shows: [role('heading', /Anemone/)], looksLike: ['${name}'] },
});
`;
  const shown = "shows: [role('heading', /Anemone/)]";
  const project = makeProject({
    ...good,
    'src/Wrong.states.jsx': declared('wrong', "shows: [role('heading', /Borage/)]"),
    'src/Loop.states.jsx': declared('endless', `props: { trouble: 'loop' }, ${shown}`),
    'src/Dialog.states.jsx': declared('asking', `props: { trouble: 'dialog' }, ${shown}`),
    'src/Leave.states.jsx': declared('leaving', `props: { trouble: 'leave' }, ${shown}`),
    'src/Broken.states.jsx': "import { nothing } from './Nowhere';\nexport default nothing;\n",
    'src/Syntax.states.jsx': 'export default states(;\n',
    'src/Other.states.jsx': 'export default { loaded: {} };\n',
  });
  let sheet: Sheet;
  let outcome: Awaited<ReturnType<typeof project.sheet>>;
  beforeAll(async () => {
    outcome = await project.sheet([...quick, '--within', '4000']);
    sheet = readSheet(project.path('sheet/sheet.json'));
  }, 120_000);

  it.each([
    [
      'Wrong',
      'wrong',
      'SIM-STATE-WRONG',
      /HiveSign does not look as its state "wrong" says\..*"Hive Anemone"/s,
    ],
    ['Loop', 'endless', 'SIM-PAGE-HANGS', /HiveSign in the state "endless" did not answer for 4 s/],
    ['Dialog', 'asking', 'SIM-PAGE-DIALOG', /opened a dialog of the browser, alert\("A swarm!"\)/],
    ['Leave', 'leaving', 'SIM-PAGE-LEFT', /left its page for http:\/\/localhost:\d+\/elsewhere/],
  ])('fails alone: %s', (file, name, code, message) => {
    const component = componentOf(sheet, file);
    const { failure, picture } = stateOf(component, name).views[0]!;
    expect([failure!.code, failure!.message.replace(/\s+/g, ' ')]).toEqual([
      code,
      expect.stringMatching(message),
    ]);
    expect(picture !== undefined).toBe(name === 'wrong');
    expect(stateOf(component, 'well').views[0]!.failure).toBeUndefined();
  });

  it.each([
    ['Broken', 'SIM-PAGE-LOAD', /Broken\.states\.jsx could not be loaded into the page: .*Nowhere/s],
    ['Syntax', 'SIM-PAGE-LOAD', /Syntax\.states\.jsx could not be loaded.*1:23/s],
    ['Other', 'SIM-STATES-GIVEN', /Other\.states\.jsx, as a file that declares states,.*"loaded"/s],
  ])('is told of a file that cannot be drawn: %s', (file, code, message) => {
    const { states, failures } = componentOf(sheet, file);
    expect([states, failures.length, failures[0]!.code]).toEqual([[], 1, code]);
    expect(failures[0]!.message.replace(/\s+/g, ' ')).toMatch(message);
  });

  it('leaves the others as they are, and ends with 1', () => {
    expect(
      componentOf(sheet, 'HiveSign').states.flatMap(({ views }) =>
        views.flatMap(({ failure }) => failure ?? []),
      ),
    ).toEqual([]);
    expect(outcome.code).toBe(1);
    expect(outcome.words).toContain('4 not as declared, 3 complaints about states as a whole');
    expect(readFileSync(project.path('sheet/junit.xml'), 'utf8')).toMatch(/tests="14" failures="7"/);
  });
});

describe('accepted pictures', () => {
  const project = makeProject(good);
  const compare = () => project.sheet([...quick, '--compare']);
  const accept = () => project.sheet([...quick, '--accept']);
  const failuresIn = () =>
    componentOf(readSheet(project.path('sheet/sheet.json')), 'HiveSign').states.map(
      ({ views: [view] }) => view!.failure?.code,
    );
  const accepted = 'accepted-pictures/src/HiveSign/loaded.300.light.png';

  it('are missing at first, are taken, and are the same then', async () => {
    expect((await compare()).words).toMatch(/SIM-PICTURE-NEW .* 3 not accepted yet/);
    const taken = await accept();
    expect([taken.code, taken.words]).toEqual([
      0,
      expect.stringContaining('3 pictures taken as accepted: accepted-pictures'),
    ]);
    expect((await compare()).code).toBe(0);
  }, 120_000);

  it('are compared: what changed is marked, and can be taken', async () => {
    project.put('src/HiveSign.jsx', hiveSign('Beehive'));
    const changed = await compare();
    expect([changed.code, failuresIn()]).toEqual([1, Array(3).fill('SIM-PICTURE-CHANGED')]);
    expect(changed.words).toMatch(
      /"loaded" looks other than was accepted: [\d.]+ % of its picture changed, and 0\.1 % may/,
    );
    const folder = readdirSync(project.path('sheet/pictures/src/HiveSign')).filter((name) =>
      name.startsWith('loaded'),
    );
    expect(folder.sort()).toEqual([
      'loaded.300.light.accepted.png',
      'loaded.300.light.difference.png',
      'loaded.300.light.png',
    ]);
    expect((await project.sheet([...quick, '--compare', '--tolerance', '0.5'])).code).toBe(0);
    await accept();
    expect((await compare()).code).toBe(0);
  }, 120_000);

  it('are told of by their size, and where they cannot be read', async () => {
    const { width, height } = PNG.sync.read(readFileSync(project.path(accepted)));
    writeFileSync(project.path(accepted), PNG.sync.write(new PNG({ width, height: height + 7 })));
    writeFileSync(project.path('accepted-pictures/src/HiveSign/failed.300.light.png'), 'no picture');
    const { words } = await compare();
    expect(words).toContain(`is ${width} × ${height} and was accepted as ${width} × ${height + 7} pixels`);
    expect(failuresIn()).toEqual([undefined, 'SIM-PICTURE-FILE', 'SIM-PICTURE-CHANGED']);
  }, 60_000);

  it('of a state that is gone go, and of one that is wrong are not taken', async () => {
    project.put(
      'src/HiveSign.states.jsx',
      signStates.replace(/ {2}failed.*\n/, '').replace("role('status')", "role('alert')"),
    );
    rmSync(project.path(accepted));
    const { words } = await accept();
    expect(words).toContain('1 picture taken as accepted, 1 of states that are no more taken away');
    expect(existsSync(project.path('accepted-pictures/src/HiveSign/failed.300.light.png'))).toBe(false);
  }, 60_000);
});

describe('parts of a sheet', () => {
  const project = makeProject({
    ...good,
    'src/A.states.jsx': signStates,
    'src/B.states.jsx': signStates,
  });

  it('are drawn apart, and are one again', async () => {
    for (const part of ['1', '2']) {
      const { code } = await project.sheet([...quick.slice(0, -1), `part-${part}`, '--shard', `${part}/2`]);
      expect(code).toBe(0);
    }
    const missing = await project.sheet(['--merge', 'part-1', '--out', 'whole']);
    expect([missing.code, missing.words]).toEqual([2, expect.stringContaining('part 2/2 was not given')]);
    const twice = await project.sheet(['--merge', 'part-1', 'part-1', 'part-2', '--out', 'whole']);
    expect(twice.words).toMatch(/it has src\/A\.states\.jsx, and so has part-1/);
    expect((await project.sheet(['--merge', 'part-1', 'part-2', '--out', 'whole'])).code).toBe(0);
    const { components, shard } = readSheet(project.path('whole/sheet.json'));
    expect(components.map(({ file }) => file)).toEqual(
      ['A', 'B', 'HiveSign'].map((name) => `src/${name}.states.jsx`),
    );
    expect(shard).toBeUndefined();
    for (const { picture } of components.flatMap(({ states }) => states.flatMap(({ views }) => views)))
      expect(existsSync(project.path('whole', picture!))).toBe(true);
  }, 120_000);
});

describe('a call that is wrong', () => {
  const project = makeProject({
    ...good,
    'broken/vite.config.mjs': 'throw new Error("no bees");\n',
    'broken/HiveSign.states.jsx': signStates,
    'empty/notes.txt': 'Nothing is declared here.',
    'text/sheet.json': '{}',
    'odd/simulacra.config.mjs': 'export default { sheet: { width: [300] } };\n',
    'odd/HiveSign.states.jsx': signStates,
  });

  it.each([
    [
      'a file that is not there',
      ['src/HiveSing.states.jsx'],
      /SIM-SHEET-FILE .*Did you mean src\/HiveSign\.states\.jsx/,
    ],
    [
      'a component',
      ['src/HiveSign.jsx'],
      /it is no file that declares states.*Did you mean src\/HiveSign\.states\.jsx/,
    ],
    ['a folder without states', ['empty'], /SIM-SHEET-NONE .*in empty\./],
    ['a width', ['--width', '20'], /--width was given \[20\], and takes widths from 100 to 4000 pixels/],
    ['a scheme', ['--scheme', 'sepia'], /--scheme was given \["sepia"\], and takes light, dark, or both/],
    [
      'a tolerance',
      ['--compare', '--tolerance', '7'],
      /--tolerance was given 7, and takes a part from 0 to 1/,
    ],
    ['a part', ['--shard', '3/2'], /"3\/2" is no part of a sheet/],
    ['what is no sheet', ['--merge', 'text'], /text cannot be merged: sheet\.json is no sheet/],
    ['a port', ['--watch', '--port', 'x'], /--port was given "x"|SIM-OPTION-VALUE/],
    ['a folder nobody may write', ['--out', '/proc/sheet'], /SIM-SHEET-WRITE .*\/proc\/sheet/],
    ['an option nobody knows', ['--widht', '300'], /unknown option '--widht'.*Did you mean --width/],
    [
      'a configuration of Vite that cannot be loaded',
      ['broken', ...quick],
      /SIM-VITE-CONFIG .*broken\/vite\.config\.mjs could not be loaded: no bees/,
    ],
  ])(
    'is refused: %s',
    async (_, args, message) => {
      const { code, words } = await project.sheet(args);
      expect(words).toMatch(message);
      expect(code).toBe(2);
      expect(readdirSync(project.place).filter((name) => /sheet-/.test(name))).toEqual([]);
    },
    30_000,
  );

  it('tells where no browser is, and how to install one', async () => {
    const { code, words } = await project.sheet(quick, { CHROME_PATH: '/nowhere/chromium' });
    expect(words).toMatch(
      /SIM-BROWSER-NONE CHROME_PATH names \/nowhere\/chromium, and there is no such file\..*apt-get install chromium/,
    );
    expect(code).toBe(2);
  });

  it('tells of a browser that does not start', async () => {
    const { code, words } = await project.sheet(quick, { CHROME_PATH: process.execPath });
    expect(words).toMatch(/SIM-BROWSER-START The browser .* could not be started/);
    expect(code).toBe(2);
  });

  it('tells of a port in use', async () => {
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as { port: number };
    const { code, words } = await project.sheet(['--watch', '--port', String(port)]);
    server.close();
    expect(words).toContain(
      `SIM-SHEET-PORT Nothing can listen on port ${port}: something else does already.`,
    );
    expect(code).toBe(2);
  });

  it('draws the other projects where one cannot be served', async () => {
    const { code, words } = await project.sheet([...quick, 'src', 'broken']);
    expect(words).toMatch(/shown HiveSign 3 states/);
    expect(words).toContain('no bees');
    expect(code).toBe(1);
  }, 60_000);
});

describe('a sheet that is watched', () => {
  const project = makeProject(good);

  it('is drawn anew where a file was saved, lets a state be tried, and stops', async () => {
    const running = project.start(['--watch', '--port', '0', ...quick]);
    let said = '';
    running.stdout.on('data', (text) => (said += String(text)));
    running.stderr.on('data', (text) => (said += String(text)));
    const until = async (what: RegExp) => {
      for (const end = Date.now() + 40_000; !what.test(said); await new Promise((go) => setTimeout(go, 50)))
        if (Date.now() > end) throw new Error(`${what} was never said:\n${said}`);
    };
    try {
      await until(/3 states drawn/);
      const url = /http:\/\/localhost:\d+\//.exec(said)![0];
      const seen = await runScript<Record<string, unknown>>(
        'sheet/watch.mjs',
        url,
        project.path('src/HiveSign.jsx'),
      );
      expect(seen).toEqual({
        before: 3,
        redrawn: true,
        others: 403,
        waits: 'Waits for GET /api/hives/h1',
        released: 'Hive <b>Anemone</b>',
        props: ['hive'],
        changed: 'GET /api/hives/h2',
        errors: [],
      });
      await until(/src\/HiveSign\.states\.jsx drawn again/);
    } finally {
      running.kill('SIGTERM');
      await new Promise((resolve) => running.once('close', resolve));
    }
    expect(said).toContain('Stopped.');
    expect(readdirSync(project.place).sort()).toEqual(['src', 'vite.config.mjs']);
  }, 90_000);
});
