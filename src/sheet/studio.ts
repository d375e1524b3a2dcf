import { availableParallelism } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openBrowser, type OpenBrowser } from '../browser/open';
import { onPages, withPackages } from '../browser/pages';
import { projectOf, serveProject, type ServedProject } from '../browser/project';
import { Slot } from '../browser/slot';
import { readAxe } from './audit';
import { FileDrawing, nothingOf } from './draw-file';
import { failedOf } from './failed';
import { printStageHtml } from './stage-html';
import type { SheetComponent } from './model';
import type { DrawOptions } from './options';

const ours = dirname(fileURLToPath(import.meta.url));

const inPage = join(ours, 'in-page.js');

/** How a file is drawn again. */
interface DrawMore {
  /** Where the slot has its project's page already, so that only what changed is loaded anew. */
  readonly stamp?: number;
  /** Ends it. */
  readonly stop?: AbortSignal;
}

/** A project with files that declare states; a failure where it could not be served. */
export interface Room {
  readonly root: string;
  readonly files: string[];
  readonly project: ServedProject | undefined;
  readonly failure: unknown;
  /** The code of axe-core, where it has that. */
  readonly axe: string | undefined;
}

/** Where states are drawn: a browser, and the projects that it loads them from. */
export class Studio {
  readonly #browser: OpenBrowser;
  readonly #options: DrawOptions;
  readonly rooms: readonly Room[];

  private constructor(browser: OpenBrowser, rooms: readonly Room[], options: DrawOptions) {
    this.#browser = browser;
    this.rooms = rooms;
    this.#options = options;
  }

  /**
   * @param events where pages hear that a file was saved, in watch mode
   * @throws what keeps everything from being drawn: no browser, no configuration that can be loaded
   */
  static async open(options: DrawOptions, events?: string): Promise<Studio> {
    const browser = await openBrowser(options.isShown);
    const rooms = await Promise.all(
      [...groupFiles(options)].map(([root, files]) => openRoom(root, files, options, events)),
    );
    const studio = new Studio(browser, rooms, options);
    if (rooms.some(({ project }) => project)) return studio;
    await studio.close();
    throw rooms[0]!.failure;
  }

  /** A place for pages. */
  makeSlot(): Slot {
    return new Slot(this.#browser.browser);
  }

  /** Draws everything, several files at once. */
  async drawAll(): Promise<SheetComponent[]> {
    const jobs = this.rooms.flatMap((room) => room.files.map((file) => ({ room, file })));
    const drawn = new Array<SheetComponent>(jobs.length);
    const { pages = Math.min(4, availableParallelism()), stop } = this.#options;
    const how = { pages, isOver: () => stop?.aborted === true };
    await onPages(this.#browser.browser, jobs, how, async ({ room, file }, slot, at) => {
      drawn[at] = await this.draw(file, room, slot);
    });
    return drawn.filter(Boolean);
  }

  /**
   * Draws the states of one file.
   *
   * @param more where it is drawn again
   */
  async draw(file: string, room: Room, slot: Slot, more: DrawMore = {}): Promise<SheetComponent> {
    const { root } = this.#options;
    const { project, failure } = room;
    const place = { file: below(root, file), project: below(root, room.root) };
    if (!project) return { ...place, ...nothingOf(place.file, failedOf(failure)) };
    const options = more.stop ? { ...this.#options, stop: more.stop } : this.#options;
    const sitting = { slot, project, options, file, place, inPage: project.urlOf(inPage), axe: room.axe };
    return withPackages(project, (isFirst) =>
      new FileDrawing(sitting)
        .draw(isFirst ? more.stamp : undefined)
        .catch((problem: unknown) => ({ ...place, ...nothingOf(place.file, failedOf(problem)) })),
    );
  }

  /** A place with the page of a project, ready for its files. */
  async keepSlot(room: Room): Promise<Slot> {
    const slot = this.makeSlot();
    const { project, axe, root } = room;
    const place = { file: '', project: '' };
    const sitting = { slot, options: this.#options, file: root, place, axe };
    // An error is reported when a file is drawn on it.
    if (project)
      await new FileDrawing({ ...sitting, project, inPage: project.urlOf(inPage) })
        .warmUp(room.files)
        .catch(() => undefined);
    return slot;
  }

  async close(): Promise<void> {
    // A server waits for the connections that the browser keeps.
    await this.#browser.close();
    await Promise.all(this.rooms.map(({ project }) => project?.close()));
  }
}

function groupFiles({ files, root }: DrawOptions): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const file of files) {
    const project = projectOf(file, root);
    groups.set(project, [...(groups.get(project) ?? []), file]);
  }
  return groups;
}

async function openRoom(
  root: string,
  files: string[],
  { root: top, load, isAudited }: DrawOptions,
  events: string | undefined,
): Promise<Room> {
  const axe = isAudited === false ? undefined : await readAxe(root);
  const trying = events === undefined ? undefined : { ...{ load, events, module: join(ours, 'live.js') } };
  return serveProject({
    ...{
      root,
      files: [...files, ...load],
      purpose: trying ? 'watch' : 'sheet',
      isWatching: trying !== undefined,
    },
    html: (urlOf) =>
      printStageHtml(
        urlOf,
        trying && { ...trying, files: new Map(files.map((file) => [below(top, file), file])) },
      ),
  }).then(
    (project) => ({ root, files, project, axe, failure: undefined }),
    (failure: unknown) => ({ root, files, project: undefined, axe, failure }),
  );
}

/** A path from a folder, as it is written everywhere. */
export const below = (top: string, path: string): string => relative(top, path).replaceAll('\\', '/');
