/** @jest-environment node */
import { readdirSync } from 'node:fs';
import { createServer } from 'node:net';
import { good, makeProject, quick, signStates } from './project';

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
