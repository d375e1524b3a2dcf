import { lent, type ScreenWanted } from '../../core/files';
import type { RunAsked } from '../told';
import { ask } from './wire';
import { askNow, existsSync, keepText, readFileSync, textOf } from './node/fs';

const withoutEnding = (name: string) => name.replace(/\.[cm]?[jt]sx?$/, '').replace(/\.states$/, '');

// Kept before a subject's time takes its place.
const { requestAnimationFrame } = globalThis;
const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));

let screen: ScreenWanted = {};

/** A page hears of another screen with its next frame. */
async function changeScreen(wanted: ScreenWanted): Promise<void> {
  screen = wanted;
  await ask('screen', { wanted });
  await frame();
  await frame();
}

/** Gives the page the screen back that every test begins with. */
export async function resetScreen(): Promise<void> {
  if (Object.keys(screen).length > 0) await changeScreen({});
}

/** Lends the library what only Node has: the text of what was loaded, and what is kept beside a file of tests. */
export function lendFiles({ url, path, env }: RunAsked): void {
  const here = withoutEnding(new URL(url, location.href).href);
  // What stands beside the file is no module; a module is read as the page has it, where its lines are right.
  const pathOf = (file: string) =>
    file.startsWith(`${here}.looks`) ? withoutEnding(path) + file.slice(here.length) : undefined;
  lent.env = env;
  lent.screen = (wanted) => changeScreen({ ...screen, ...wanted });
  lent.files = {
    existsSync: (file) => existsSync(pathOf(file) ?? file),
    readFileSync: (file) => {
      const own = pathOf(file);
      if (own !== undefined) return readFileSync(own, 'utf8') as string;
      const request = askNow('GET', file);
      if (request.status !== 200)
        throw Object.assign(new Error(`${file} cannot be read`), { code: 'ENOENT' });
      return textOf(request);
    },
    writeFileSync: (file, text) => keepText(pathOf(file) ?? file, text),
  };
}
