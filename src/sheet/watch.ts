import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { text } from 'node:stream/consumers';
import type { Slot } from '../browser/slot';
import { refuse } from './errors';
import { printSheetHtml } from './html';
import type { SheetFolder } from './keep';
import type { Sheet, SheetComponent } from './model';
import type { DrawOptions, LookedAt } from './options';
import { below, Studio, type Room } from './studio';

/** A sheet that is served while its states are being worked on. */
export interface Watched {
  readonly url: string;
  /** Resolves when every state has been drawn once. */
  readonly drawn: Promise<Sheet>;
  close(): Promise<void>;
}

/** What a watch is made of. */
export interface WatchOptions extends Omit<DrawOptions, 'keep' | 'onDrawn'> {
  readonly folder: SheetFolder;
  readonly port: number;
  /** Told when states were drawn again. */
  readonly onRedrawn?: (files: readonly string[], milliseconds: number) => void;
}

/**
 * Draws declared states, serves their sheet on this machine, and draws those anew that a saved file is part of.
 *
 * @throws SIM-SHEET-PORT, and what keeps everything from being drawn
 */
export async function watchSheet(options: WatchOptions): Promise<Watched> {
  const watch = new Watch(options);
  await watch.listen(options.port);
  try {
    await watch.open();
  } catch (failure) {
    await watch.close();
    throw failure;
  }
  return { url: watch.url, drawn: watch.drawAll(), close: () => watch.close() };
}

class Watch {
  readonly #options: WatchOptions;
  readonly #server: Server;
  readonly #readers = new Set<ServerResponse>();
  readonly #components = new Map<string, SheetComponent>();
  readonly #waiting = new Map<string, { readonly room: Room; readonly file: string }>();
  #studio: Studio | undefined;
  #slots = new Map<Room, Slot>();
  #version = 0;
  #work: Promise<void> = Promise.resolve();
  readonly #texts = new Map<string, string | undefined>();
  #drawing = new AbortController();
  #lookedAt: LookedAt | undefined;
  #milliseconds = 0;

  constructor(options: WatchOptions) {
    this.#options = options;
    this.#server = createServer((request, response) => {
      void this.#answer(request, response).catch(() => response.writeHead(500).end());
    });
  }

  get url(): string {
    const { port } = this.#server.address() as { port: number };
    return `http://localhost:${port}/`;
  }

  async listen(port: number): Promise<void> {
    await new Promise<void>((resolve, reject) => {
      this.#server.once('error', reject).listen(port, '127.0.0.1', resolve);
    }).catch((cause: NodeJS.ErrnoException) => {
      const why = cause.code === 'EADDRINUSE' ? 'something else does already' : cause.message;
      refuse('SIM-SHEET-PORT', { port, why }, { cause });
    });
  }

  async open(): Promise<void> {
    const { folder } = this.#options;
    this.#studio = await Studio.open(
      {
        ...this.#options,
        keep: async (picture) => `${await folder.keep(picture)}?v=${++this.#version}`,
        onDrawn: (component) => this.#tell(component),
        lookedAt: () => this.#lookedAt,
      },
      `${this.url}events`,
    );
    for (const room of this.#studio.rooms)
      room.project?.server.watcher.on('all', (kind, file) => this.#noteChange(room, file, kind));
  }

  async drawAll(): Promise<Sheet> {
    const begun = performance.now();
    for (const component of await this.#studio!.drawAll()) this.#tell(component);
    this.#milliseconds = Math.round(performance.now() - begun);
    // From now on each project has a page that stays.
    for (const room of this.#studio!.rooms) this.#slots.set(room, await this.#studio!.keepSlot(room));
    return this.#sheet();
  }

  #sheet(): Sheet {
    const components = [...this.#components.values()].sort((a, b) => (a.file < b.file ? -1 : 1));
    const made = new Date().toISOString();
    return {
      simulacra: 'sheet',
      version: 1,
      made,
      milliseconds: this.#milliseconds,
      shard: undefined,
      components,
    };
  }

  #tell(component: SheetComponent): void {
    const before = this.#components.get(component.file);
    // What was drawn before stays to be seen until it is drawn again.
    const states = component.states.map((state) => {
      const old = before?.states.find(({ name }) => name === state.name);
      if (!old) return state;
      const isDrawn = (view: { width: number; scheme: string }) =>
        state.views.some(({ width, scheme }) => width === view.width && scheme === view.scheme);
      const left = old.views.filter((view) => !isDrawn(view));
      return state.views.length === 0 ? old : { ...state, views: [...state.views, ...left] };
    });
    const told = { ...component, states };
    this.#components.set(component.file, told);
    this.#send({ component: told });
  }

  #send(message: object): void {
    for (const reader of this.#readers) reader.write(`data: ${JSON.stringify(message)}\n\n`);
  }

  /** Finds which files declare states that a changed file is part of, and draws those anew. */
  #noteChange(room: Room, file: string, kind: string): void {
    // Saving once may fire two events.
    const text = existsSync(file) && statSync(file).isFile() ? readFileSync(file, 'utf8') : undefined;
    if (text !== undefined && this.#texts.get(file) === text) return;
    this.#texts.set(file, text);
    const project = room.project!;
    const graph = project.server.environments.client.moduleGraph;
    const stamp = Date.now();
    const found = new Set<string>();
    const seen = new Set<object>();
    const visit = (module: NonNullable<ReturnType<typeof graph.getModuleById>>) => {
      if (seen.has(module)) return;
      seen.add(module);
      graph.invalidateModule(module, new Set(), stamp, true);
      if (module.file && room.files.includes(module.file)) found.add(module.file);
      for (const importer of module.importers) visit(importer);
    };
    for (const module of graph.getModulesByFile(file.replaceAll('\\', '/')) ?? []) visit(module);
    // What each page loads first is part of all.
    const isOfAll = this.#options.load.some((one) =>
      [...seen].some((module) => (module as { file?: string }).file === one),
    );
    for (const one of isOfAll ? room.files : found) this.#waiting.set(one, { room, file: one });
    if (kind === 'unlink' && room.files.includes(file)) this.#drop(room, file);
    if (this.#waiting.size === 0) return;
    this.#send({ saved: [...this.#waiting.keys()].map((one) => below(this.#options.root, one)) });
    // What is being drawn is out of date, or can wait.
    this.#drawing.abort();
    this.#work = this.#work.then(() => this.#redraw(stamp));
  }

  #drop(room: Room, file: string): void {
    room.files.splice(room.files.indexOf(file), 1);
    this.#waiting.delete(file);
    const name = below(this.#options.root, file);
    this.#components.delete(name);
    this.#send({ gone: name });
  }

  async #redraw(stamp: number): Promise<void> {
    const begun = performance.now();
    const drawing = (this.#drawing = new AbortController());
    const stop = AbortSignal.any([drawing.signal, ...(this.#options.stop ? [this.#options.stop] : [])]);
    const drawn: string[] = [];
    while (this.#waiting.size > 0 && !stop.aborted) {
      const { room, file } = this.#next();
      const slot = this.#slots.get(room);
      if (!slot) return;
      const component = await this.#studio!.draw(file, room, slot, { stamp, stop });
      if (stop.aborted) return;
      this.#waiting.delete(file);
      this.#tell(component);
      drawn.push(file);
    }
    if (drawn.length > 0) this.#options.onRedrawn?.(drawn, performance.now() - begun);
  }

  /** What waits longest, or what somebody looks at. */
  #next() {
    const waiting = [...this.#waiting.values()];
    const isSeen = ({ file }: { file: string }) => below(this.#options.root, file) === this.#lookedAt?.file;
    return waiting.find(isSeen) ?? waiting[0]!;
  }

  async #answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { url = '/' } = request;
    const { origin } = request.headers;
    const { pathname } = new URL(url, 'http://localhost');
    if (pathname === '/events') {
      const isOwn = this.#studio?.rooms.some(({ project }) => origin && project?.url === `${origin}/`);
      response.writeHead(200, {
        ...{ 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
        ...(isOwn && { 'access-control-allow-origin': origin }),
      });
      response.write('\n');
      this.#readers.add(response);
      response.on('close', () => this.#readers.delete(response));
      return;
    }
    if (pathname === '/looking' && request.method === 'POST') {
      const told = (await text(request)).slice(0, 10_000);
      this.#lookedAt = (JSON.parse(told) as LookedAt | null) ?? undefined;
      return void response.writeHead(204).end();
    }
    if (pathname === '/') {
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' });
      const live = Object.fromEntries(
        this.#studio?.rooms.flatMap(({ root, project }) =>
          project ? [[below(this.#options.root, root), project.url]] : [],
        ) ?? [],
      );
      response.end(await printSheetHtml(this.#sheet(), { live }));
      return;
    }
    const file = /^\/(pictures\/(?:[^/]+\/)*[^/]+\.png)$/.exec(decodeURIComponent(pathname))?.[1];
    const bytes =
      file &&
      !file.includes('..') &&
      (await readFile(join(this.#options.folder.draft, file)).catch(() => undefined));
    if (!bytes) return void response.writeHead(404).end();
    response.writeHead(200, { 'content-type': 'image/png', 'cache-control': 'max-age=3600' }).end(bytes);
  }

  async close(): Promise<void> {
    for (const reader of this.#readers) reader.end();
    this.#server.closeAllConnections();
    await new Promise((resolve) => this.#server.close(resolve));
    await this.#work.catch(() => undefined);
    for (const slot of this.#slots.values()) await slot.close();
    await this.#studio?.close();
  }
}
