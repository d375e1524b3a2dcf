import { rmSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from 'puppeteer-core';
import { explain as explainNetwork } from '../network/errors';
import { explain } from './errors';
import { findBrowser } from './find';

/** A browser that was opened, and how to close it. */
export interface OpenBrowser {
  readonly browser: Browser;
  close(): Promise<void>;
}

const quiet = [
  ...['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--hide-scrollbars'],
  ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
  // Pages that are drawn side by side are all in the foreground.
  ...['--disable-background-timer-throttling', '--disable-renderer-backgrounding'],
  ...['--disable-backgrounding-occluded-windows', '--font-render-hinting=none', '--force-color-profile=srgb'],
];

/**
 * Opens a browser with an empty folder of its own, which is gone when it is closed.
 *
 * @param isShown whether a person sees it work
 * @throws SIM-BROWSER-NONE, SIM-BROWSER-START, SIM-PACKAGE
 */
export async function openBrowser(isShown = false): Promise<OpenBrowser> {
  const executablePath = findBrowser();
  const { launch } = await import('puppeteer-core').catch(() => {
    throw explainNetwork('SIM-PACKAGE', { name: 'puppeteer-core', why: 'driving the browser' });
  });
  const userDataDir = await mkdtemp(join(tmpdir(), 'simulacra-browser-'));
  const removeFolder = () => rm(userDataDir, { recursive: true, force: true, maxRetries: 5, retryDelay: 50 });
  try {
    const browser = await launch({
      ...{ executablePath, userDataDir, headless: !isShown, defaultViewport: null },
      args: isShown ? quiet : ['--headless', ...quiet],
      ...{ handleSIGINT: false, handleSIGTERM: false, protocolTimeout: 0 },
    });
    // A process that ends at once takes the browser with it, and nothing is waited for.
    const onExit = () => rmSync(userDataDir, { recursive: true, force: true });
    process.once('exit', onExit);
    const close = async () => {
      process.removeListener('exit', onExit);
      await browser.close().catch(() => browser.process()?.kill('SIGKILL'));
      await removeFolder();
    };
    return { browser, close };
  } catch (cause) {
    await removeFolder();
    const why = (cause as Error).message.split('\n').find((line) => line.trim()) ?? 'it said nothing.';
    throw explain('SIM-BROWSER-START', { path: executablePath, why }, { cause });
  }
}
