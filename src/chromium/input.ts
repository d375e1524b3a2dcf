import { mkdir, mkdtemp, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import type { CDPSession, Page } from 'puppeteer-core';
import { evaluateOn, makeWorld } from '../browser/evaluate';
import type { AskedInput, CarriedFile, Copied } from './told';

/** All pages of a browser share one clipboard. */
let clipboardFree: Promise<unknown> = Promise.resolve();

function withClipboard<T>(work: () => Promise<T>): Promise<T> {
  const done = clipboardFree.then(work);
  clipboardFree = done.catch(() => undefined);
  return done;
}

/** The browser's own mouse, keyboard, clipboard and files, for what a test does on one page. */
export class Input {
  readonly #page: Page;
  readonly #session: CDPSession;
  #beside: number | undefined;
  #folder: string | undefined;
  #count = 0;

  constructor(page: Page, session: CDPSession) {
    this.#page = page;
    this.#session = session;
  }

  /** Does what was asked, one after the other. @returns what is on the clipboard, where that was asked */
  async do({ commands, clipboard, isRead }: AskedInput): Promise<Copied | undefined> {
    // Together, in their order: a pointer that only moves waits for the next frame, and one that is pressed does not.
    const work = () =>
      Promise.all(
        commands.map(([method, params]) => this.#session.send(method as 'Input.insertText', params as never)),
      );
    if (!clipboard && !isRead) return void (await work());
    return withClipboard(async () => {
      if (clipboard) await this.#evaluate(`(${write.toString()})(${JSON.stringify(clipboard)})`);
      await work();
      return isRead ? this.#evaluate<Copied>(`(${read.toString()})()`) : undefined;
    });
  }

  /** Chooses files for the input that the page names. */
  async choose(files: readonly CarriedFile[]): Promise<void> {
    this.#folder ??= await mkdtemp(join(tmpdir(), 'simulacra-files-'));
    const folder = join(this.#folder, String(++this.#count));
    await mkdir(folder);
    const paths = files.map(({ name }) => join(folder, basename(name)));
    for (const [at, { base64, lastModified }] of files.entries()) {
      await writeFile(paths[at]!, Buffer.from(base64, 'base64'));
      await utimes(paths[at]!, new Date(), new Date(lastModified));
    }
    const { result } = await this.#session.send('Runtime.evaluate', { expression: 'simulacraInput' });
    await this.#session.send('DOM.setFileInputFiles', { files: paths, objectId: result.objectId! });
  }

  /** Takes away what was chosen. */
  async close(): Promise<void> {
    if (this.#folder) await rm(this.#folder, { recursive: true, force: true });
    this.#folder = undefined;
  }

  // Beside the page, whose own clipboard may be a test's.
  async #evaluate<T>(expression: string): Promise<T> {
    this.#beside ??= await this.#makeBeside();
    return evaluateOn<T>(this.#session, expression, 'the clipboard', this.#beside);
  }

  async #makeBeside(): Promise<number> {
    const { origin } = new URL(this.#page.url());
    const context = this.#page.browserContext();
    await context.overridePermissions(origin, ['clipboard-read', 'clipboard-sanitized-write']);
    return makeWorld(this.#session);
  }
}

/* What follows runs beside the page. */

async function write({ text, html }: { text: string; html?: string }): Promise<void> {
  const blob = (content: string, type: string) => new Blob([content], { type });
  const kinds = {
    'text/plain': blob(text, 'text/plain'),
    ...(html && { 'text/html': blob(html, 'text/html') }),
  };
  await navigator.clipboard.write([new ClipboardItem(kinds)]);
}

async function read(): Promise<Copied> {
  const [item] = await navigator.clipboard.read();
  const get = async (type: string) =>
    item?.types.includes(type) ? (await item.getType(type)).text() : undefined;
  const [text = '', html] = [await get('text/plain'), await get('text/html')];
  return { text, ...(html && { html }) };
}
