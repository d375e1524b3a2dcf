/** @jest-environment node */
import { readdirSync, readFileSync } from 'node:fs';
import { PNG } from 'pngjs';
import { runScript } from '../script';
import type { Sheet } from '../../src/sheet/model';
import { componentOf, good, makeProject, quick, readSheet, stateOf } from './project';
import { complainOfXml } from './xml';

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
