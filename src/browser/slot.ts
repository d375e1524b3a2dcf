import type { Browser, BrowserContext, CDPSession, Page } from 'puppeteer-core';
import { explain } from './errors';
import { evaluateOn, makeWorld } from './evaluate';

/** What a page looks like to what is on it. */
export interface Screen {
  /** In CSS pixels. */
  readonly width: number;
  readonly height: number;
  readonly scheme: 'light' | 'dark';
  /** Whether less motion is asked for. */
  readonly isStill?: boolean;
}

/** A part of a page, in CSS pixels. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What a document has on it that was loaded by a slot, and not by a link that was followed. */
const mark = 'simulacraPage';
export const markPage = `globalThis.${mark} = true;`;

/**
 * One place where pages are shown, one after the other. It has a context of its own, so that nothing of one is
 * seen by another. What goes wrong with the page itself (a crash, a loop without end, a navigation, a dialog that
 * waits) fails what is being done on it, and the next one gets a new page.
 */
export class Slot {
  readonly #browser: Browser;
  #context: BrowserContext | undefined;
  #page: Page | undefined;
  #session: CDPSession | undefined;
  #screen: Screen | undefined;
  /** Who is on the page, for messages. */
  #who = 'the page';
  #break: (failure: Error) => void = () => undefined;
  #broken: Error | undefined;
  #isLoading = false;
  #loaded: string | undefined;
  #beside: number | undefined;

  constructor(browser: Browser) {
    this.#browser = browser;
  }

  /** True where the next thing needs a page of its own. */
  get isBroken(): boolean {
    return this.#page === undefined || this.#broken !== undefined;
  }

  /** True where an address was loaded, and nothing went wrong since. */
  hasLoaded(url: string): boolean {
    return !this.isBroken && this.#loaded === url;
  }

  /** Talks to the page's own process. */
  get session(): CDPSession {
    return this.#session!;
  }

  get page(): Page {
    return this.#page!;
  }

  /** Loads an address: on the page that is there, or on a new one where that is of no use any more. */
  async load(url: string): Promise<void> {
    if (this.isBroken) await this.#open();
    this.#isLoading = true;
    await this.page.goto(url, { waitUntil: 'domcontentloaded' });
    this.#isLoading = false;
    this.#loaded = url;
  }

  /** Receives the texts with which the page calls a function of that name. */
  async listen(name: string, hear: (text: string) => void): Promise<void> {
    if (this.isBroken) await this.#open();
    await this.#session!.send('Runtime.addBinding', { name });
    this.#session!.removeAllListeners('Runtime.bindingCalled');
    this.#session!.on('Runtime.bindingCalled', (called) => {
      if (called.name === name) hear(called.payload);
    });
  }

  /** Has the page do something that nobody waits for. It may be gone by now. */
  tell(expression: string): void {
    this.#session?.send('Runtime.evaluate', { expression }).catch(() => undefined);
  }

  /** Ends what is being done on the page, which is of no use any more. */
  giveUp(failure: Error): void {
    this.#fail(failure);
  }

  async #open(): Promise<void> {
    await this.close();
    this.#context = await this.#browser.createBrowserContext();
    const page = (this.#page = await this.#context.newPage());
    const session = (this.#session = await page.createCDPSession());
    await session.send('Emulation.setFocusEmulationEnabled', { enabled: true });
    await session.send('Runtime.enable');
    // Events of a page that was closed since concern nobody.
    const fail = (failure: Error) => page === this.#page && this.#fail(failure);
    page.on('error', () => fail(explain('SIM-PAGE-CRASHED', { page: this.#who })));
    page.on('dialog', (dialog) => {
      const asked = { page: this.#who, kind: dialog.type(), message: dialog.message() };
      fail(explain('SIM-PAGE-DIALOG', asked));
      void dialog.dismiss().catch(() => undefined);
    });
    page.on('framenavigated', (frame) => {
      if (!this.#isLoading && frame === page.mainFrame() && page === this.#page) this.#leave(frame.url());
    });
  }

  // Going to another place in the same document does not leave it, and has an event of its own.
  #leave(to: string): void {
    const page = this.#page;
    const who = this.#who;
    void this.#session
      ?.send('Runtime.evaluate', { expression: `globalThis.${mark} === true`, returnByValue: true })
      .then(({ result }) => result.value === true)
      .catch(() => false)
      .then((isSame) => {
        if (!isSame && page === this.#page) this.#fail(explain('SIM-PAGE-LEFT', { page: who, to }));
      });
  }

  #fail(failure: Error): void {
    this.#broken ??= failure;
    this.#break(this.#broken);
  }

  /** Makes the page look like this to what is on it. */
  async setScreen(screen: Screen): Promise<void> {
    const { width, height, scheme, isStill = false } = screen;
    const before = this.#screen;
    if (before && JSON.stringify(before) === JSON.stringify({ width, height, scheme, isStill })) return;
    await this.#session!.send('Emulation.setDeviceMetricsOverride', {
      ...{ width, height, deviceScaleFactor: 1, mobile: false },
    });
    await this.#session!.send('Emulation.setEmulatedMedia', {
      features: [
        { name: 'prefers-color-scheme', value: scheme },
        { name: 'prefers-reduced-motion', value: isStill ? 'reduce' : 'no-preference' },
      ],
    });
    this.#screen = { width, height, scheme, isStill };
  }

  /**
   * Evaluates an expression on the page and waits for what it promises.
   *
   * @param who whom a failure names
   * @param limit how many milliseconds it may take
   * @throws SIM-PAGE-HANGS, SIM-PAGE-CRASHED, SIM-PAGE-LEFT, SIM-PAGE-DIALOG, and what the expression throws
   */
  evaluate<T>(expression: string, who: string, limit: number): Promise<T> {
    return this.#guarded(() => this.#ask<T>(expression), who, limit);
  }

  /**
   * Evaluates an expression beside the page: it sees the same elements, and nothing of what the page's own code
   * has made of globals, its time for example.
   */
  evaluateBeside<T>(expression: string, who: string, limit: number): Promise<T> {
    return this.#guarded(() => this.#ask<T>(expression, this.#beside), who, limit);
  }

  /** Puts code beside the page; gone with its document. */
  async putBeside(code: string): Promise<void> {
    this.#beside = await makeWorld(this.#session!);
    await this.#ask(code, this.#beside);
  }

  async #guarded<T>(work: () => Promise<T>, who: string, limit: number): Promise<T> {
    if (this.#broken) throw this.#broken;
    this.#who = who;
    let timer: NodeJS.Timeout | undefined;
    const broken = new Promise<never>((_, reject) => {
      this.#break = reject;
      timer = setTimeout(
        () => this.#fail(explain('SIM-PAGE-HANGS', { page: who, milliseconds: limit })),
        limit,
      );
    });
    const page = this.#page;
    const done = work().catch((failure: unknown) => this.#waitForCause(failure, page));
    try {
      return await Promise.race([done, broken]);
    } finally {
      clearTimeout(timer);
      this.#break = () => undefined;
      for (const one of [done, broken]) one.catch(() => undefined);
    }
  }

  /**
   * Where the page navigated, another event says what caused it, and may come later. A page that does
   * not answer as it should is of no more use.
   */
  async #waitForCause(failure: unknown, page: Page | undefined): Promise<never> {
    if (String((failure as { code?: unknown }).code).startsWith('SIM-')) throw failure;
    await new Promise((resolve) => setTimeout(resolve, 1000));
    // Another page may be there by now.
    if (page !== this.#page) throw failure;
    this.#broken ??= failure as Error;
    throw this.#broken;
  }

  #ask<T>(expression: string, world?: number): Promise<T> {
    return evaluateOn<T>(this.#session!, expression, this.#who, world);
  }

  /** A picture of a part of the page, as the bytes of a PNG file, in base64. @throws as `evaluate` does */
  async picture(box: Box, who: string, limit: number): Promise<string> {
    const clip = { ...box, scale: 1 };
    const how = { format: 'png', clip, captureBeyondViewport: true, optimizeForSpeed: true } as const;
    const { data } = await this.#guarded(
      () => this.#session!.send('Page.captureScreenshot', how),
      who,
      limit,
    );
    return data;
  }

  /** Closes the page, also one that does nothing any more. */
  async close(): Promise<void> {
    const context = this.#context;
    this.#context = this.#page = this.#session = this.#screen = this.#broken = undefined;
    // A page in a loop without end is closed by the browser; nobody waits for it.
    const closing = context?.close().catch(() => undefined);
    if (closing) await Promise.race([closing, new Promise((resolve) => setTimeout(resolve, 2000).unref())]);
  }
}
