// Chromium, driven by its own protocol; nothing is downloaded and nothing is left behind.
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';

const places = [
  process.env.CHROME_PATH,
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/** Opens a browser. @returns it, with how to close it and take its folder away */
export async function openBrowser() {
  const executablePath = places.find((place) => place && existsSync(place));
  if (!executablePath) throw new Error('Chromium is not installed: run  node scripts/ready.mjs --browser');
  const userDataDir = mkdtempSync(join(tmpdir(), 'simulacra-chromium-'));
  const browser = await puppeteer.launch({
    executablePath,
    userDataDir,
    headless: true,
    args: [
      ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
      ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
    ],
    defaultViewport: { width: 1280, height: 800 },
  });
  const close = async () => {
    await browser.close();
    rmSync(userDataDir, { recursive: true, force: true });
  };
  return { browser, close };
}
