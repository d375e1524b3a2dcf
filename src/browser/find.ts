import { existsSync } from 'node:fs';
import { homedir } from 'node:os';
import { delimiter, join } from 'node:path';
import { refuse } from './errors';

const names = ['chromium', 'chromium-browser', 'google-chrome', 'google-chrome-stable', 'chrome'];

function usualPlaces(platform: NodeJS.Platform): string[] {
  if (platform === 'darwin')
    return ['', homedir()].flatMap((home) =>
      ['Chromium', 'Google Chrome'].map((app) => `${home}/Applications/${app}.app/Contents/MacOS/${app}`),
    );
  if (platform === 'win32')
    return ['PROGRAMFILES', 'PROGRAMFILES(X86)', 'LOCALAPPDATA']
      .flatMap((variable) => process.env[variable] ?? [])
      .flatMap((folder) =>
        ['Google/Chrome', 'Chromium'].map((app) => join(folder, app, 'Application/chrome.exe')),
      );
  return [...names.map((name) => `/usr/bin/${name}`), '/snap/bin/chromium'];
}

/**
 * Finds the browser: where `CHROME_PATH` says, in the usual places, on the `PATH`.
 *
 * @throws SIM-BROWSER-NONE
 */
export function findBrowser(): string {
  const asked = process.env['CHROME_PATH'];
  if (asked) return existsSync(asked) ? asked : refuse('SIM-BROWSER-NONE', { asked, looked: [asked] });
  const usual = usualPlaces(process.platform);
  const onPath = (process.env['PATH'] ?? '')
    .split(delimiter)
    .filter(Boolean)
    .flatMap((folder) => names.map((name) => join(folder, name)));
  return (
    [...usual, ...onPath].find((place) => existsSync(place)) ??
    refuse('SIM-BROWSER-NONE', { asked: undefined, looked: [...usual, 'the folders of PATH'] })
  );
}
