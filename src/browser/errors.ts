import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { list } from '../core/print';

/** Failures of the browser, and of what serves its pages. */
export const registry = {
  'SIM-BROWSER-NONE': (f: { asked: string | undefined; looked: readonly string[] }): Report => ({
    head: f.asked
      ? `CHROME_PATH names ${f.asked}, and there is no such file.`
      : 'No Chromium was found on this machine.',
    there: [`Looked for: ${list(f.looked, 12)}.`],
    next: [
      'On Debian and Ubuntu:   apt-get install chromium',
      'Where it is elsewhere:   CHROME_PATH=/path/to/chromium',
    ],
  }),
  'SIM-BROWSER-START': (f: { path: string; why: string }): Report => ({
    head: `The browser ${f.path} could not be started: ${f.why}`,
    next: ['Start it by hand to see why:   ' + `${f.path} --headless --no-sandbox about:blank`],
  }),
  'SIM-VITE-CONFIG': (f: { file: string; why: string }): Report => ({
    head: `The Vite configuration ${f.file} could not be loaded: ${f.why}`,
    next: [`Start Vite with it by hand to see more:   npx vite --config ${f.file}`],
  }),
  'SIM-PAGE-CRASHED': (f: { page: string }): Report => ({
    head: `The page of ${f.page} crashed: its process ended.`,
    next: ['It may have used up its memory. Look for a loop that makes ever more elements or objects.'],
  }),
  'SIM-PAGE-HANGS': (f: { page: string; milliseconds: number }): Report => ({
    head: `The page of ${f.page} did not answer for ${f.milliseconds / 1000} s.`,
    next: ['Look for a loop that never ends, or for a promise that is never settled.'],
  }),
  'SIM-PAGE-LEFT': (f: { page: string; to: string }): Report => ({
    head: `${f.page} left its page for ${f.to}, which ends everything on it.`,
    next: [
      'A link or a form was followed by the browser itself. Let the component prevent that, or a router follow it.',
    ],
  }),
  'SIM-PAGE-DIALOG': (f: { page: string; kind: string; message: string }): Report => ({
    head: `${f.page} opened a dialog of the browser, ${f.kind}(${JSON.stringify(f.message)}), which waits for a person.`,
    next: [`Answer it in the test, before the component asks:   window.${f.kind} = () => true`],
  }),
  'SIM-PAGE-THREW': (f: { page: string; threw: string }): Report => ({
    head: `Something threw on the page of ${f.page}: ${f.threw}`,
  }),
  'SIM-PAGE-LOAD': (f: { file: string; why: string }): Report => ({
    head: `${f.file} could not be loaded into the page: ${f.why}`,
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
