import { execFile, spawn } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { promisify } from 'node:util';
import type { Sheet, SheetComponent, SheetState } from '../../src/sheet/model';

/* A project of a user, within this one, so that its packages are found. */

export const root = join(__dirname, '../..');
const cli = join(root, 'dist/cli.js');
// A worker of Jest may have been told to use colours.
const { NODE_ENV: _, FORCE_COLOR: __, ...outer } = process.env;
const clean = { ...outer, NO_COLOR: '1' };

/** Makes a project. It goes away with the tests of the file. */
export function makeProject(files: Readonly<Record<string, string>>) {
  mkdirSync(join(root, '.cache'), { recursive: true });
  const place = mkdtempSync(join(root, '.cache/project-'));
  afterAll(() => {
    const prepared = join(root, 'node_modules/.simulacra');
    const own = basename(place).replace(/[^\w]+/g, '-');
    const left = existsSync(prepared) ? readdirSync(prepared).filter((name) => name.includes(own)) : [];
    for (const folder of [place, ...left.map((name) => join(prepared, name))])
      rmSync(folder, { recursive: true, force: true });
  });
  const put = (file: string, text: string | Buffer) => {
    mkdirSync(dirname(join(place, file)), { recursive: true });
    writeFileSync(join(place, file), text);
  };
  for (const [file, text] of Object.entries(files)) put(file, text);
  const options = (env: object) => ({
    cwd: place,
    env: { ...clean, ...env } as NodeJS.ProcessEnv,
    maxBuffer: 1e8,
  });
  return {
    place,
    put,
    path: (...parts: string[]) => join(place, ...parts),
    async run(program: string, args: readonly string[], env: object = {}) {
      const { stdout, stderr, code } = (await promisify(execFile)(
        process.execPath,
        [program, ...args],
        options(env),
      ).then(
        (said) => ({ ...said, code: 0 }),
        (failed: unknown) => failed,
      )) as { stdout: string; stderr: string; code: number };
      return { code, stdout, stderr, words: `${stdout}${stderr}`.replace(/\s+/g, ' ') };
    },
    sheet(args: readonly string[], env: object = {}) {
      return this.run(cli, ['sheet', ...args], env);
    },
    spawn: (args: readonly string[], env: object = {}) => spawn(process.execPath, args, options(env)),
    start: (args: readonly string[]) => spawn(process.execPath, [cli, 'sheet', ...args], options({})),
  };
}

export const viteConfig = `import react from '@vitejs/plugin-react';
export default { root: import.meta.dirname, plugins: [react()] };
`;

/** A component with a title of its own, that loads a hive and can be made to do what no component should. */
export const hiveSign = (title: string) => `import { useEffect, useState } from 'react';
import './sign.css';
export function HiveSign({ hive, trouble }) {
  const [shown, show] = useState('loading');
  useEffect(() => {
    fetch('/api/hives/' + hive).then(async (answer) => show(answer.ok ? (await answer.json()).name : 'failed'));
  }, [hive]);
  if (trouble === 'loop') for (;;);
  if (trouble === 'dialog') window.alert('A swarm!');
  if (trouble === 'leave') location.href = '/elsewhere';
  return (
    <section aria-label="Sign">
      <h2>${title} {shown}</h2>
      {shown === 'loading' && <p role="status">Loading</p>}
    </section>
  );
}
`;

export const signCss = `body { background: rgb(250 247 240); } h2 { font: 20px/30px monospace; margin: 0; }
@media (prefers-color-scheme: dark) { body { background: rgb(23 21 15); color: white; } }`;

export const signStates = `import { fail, hold, role } from 'simulacra';
import { states } from 'simulacra/react';
import { HiveSign } from './HiveSign';

export default states(HiveSign, { props: { hive: 'h1' } }, {
  loading: { network: { 'GET /api/hives/h1': hold() }, shows: [role('status')] },
  failed: { network: { 'GET /api/hives/h1': fail(404) }, shows: [role('heading', /failed/)] },
  loaded: { network: { 'GET /api/hives/h1': { name: '<b>Anemone</b>' } }, shows: [role('heading', /Anemone/)] },
});
`;

/** What most of the tests draw. */
export const good = {
  'vite.config.mjs': viteConfig,
  'src/sign.css': signCss,
  'src/HiveSign.jsx': hiveSign('Hive'),
  'src/HiveSign.states.jsx': signStates,
};
export const quick = ['--scheme', 'light', '--width', '300', '--no-accessibility', '--out', 'sheet'];

export const readSheet = (file: string) => JSON.parse(readFileSync(file, 'utf8')) as Sheet;
export const componentOf = (sheet: Sheet, name: string): SheetComponent =>
  sheet.components.find(({ file }) => file.includes(name))!;
export const stateOf = (component: SheetComponent, name: string): SheetState =>
  component.states.find((state) => state.name === name)!;
