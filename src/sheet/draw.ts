import { availableParallelism } from 'node:os';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { openBrowser } from '../browser/open';
import { projectOf, serveProject, type ServedProject } from '../browser/project';
import { Slot } from '../browser/slot';
import { readAxe } from './audit';
import { FileDrawing, type Sitting } from './draw-file';
import { failedOf } from './failed';
import { stageHtml } from './stage-html';
import type { Scheme, Sheet, SheetComponent } from './model';

/** What is drawn, and how. */
export interface DrawOptions {
  /** The folder that names are told below. */
  readonly root: string;
  readonly files: readonly string[];
  /** In CSS pixels. */
  readonly widths: readonly number[];
  readonly schemes: readonly Scheme[];
  /** Modules and styles that every page loads first. */
  readonly load: readonly string[];
  /** How many pages are drawn at once. */
  readonly pages?: number | undefined;
  /** How many milliseconds a state may take. */
  readonly within?: number | undefined;
  /** Whether problems of accessibility are looked for, where axe-core is installed. */
  readonly isAudited?: boolean;
  readonly isShown?: boolean;
  readonly shard?: string | undefined;
  /** Keeps the bytes of a picture, which are in base64. @returns the name of its file */
  keep(picture: Picture): Promise<string>;
  readonly onDrawn?: ((file: string, component: string, state: string) => void) | undefined;
  /** Ends the drawing. */
  readonly stop?: AbortSignal | undefined;
}

/** A picture that was taken. */
export interface Picture {
  /** Of the component, from the folder the sheet is made in. */
  readonly file: string;
  readonly component: string;
  readonly state: string;
  readonly width: number;
  readonly scheme: Scheme;
  readonly data: string;
}

const ours = dirname(fileURLToPath(import.meta.url));

/**
 * Brings about every declared state of some files in a browser, and takes a picture of each.
 *
 * @throws what keeps all of them from being drawn: no browser, a configuration that cannot be loaded
 */
export async function drawSheet(options: DrawOptions): Promise<Sheet> {
  const begun = performance.now();
  const byProject = groupFiles(options);
  const { browser, close } = await openBrowser(options.isShown);
  const projects: ServedProject[] = [];
  try {
    const served = await Promise.all(
      [...byProject].map(async ([root, files]) => {
        const project = serveProject({
          ...{ root, files: [...files, ...options.load], purpose: 'sheet', html: stageHtml },
        });
        return project.then(
          (one) => (projects.push(one), { project: one, files, failure: undefined }),
          (failure: unknown) => ({ project: undefined, files, failure }),
        );
      }),
    );
    if (projects.length === 0) throw served[0]!.failure;
    const jobs: Job[] = served.flatMap(({ project, files, failure }) =>
      files.map((file): Job => ({ file, project, failure })),
    );
    const components = await drawAll(jobs, () => new Slot(browser), options);
    const milliseconds = Math.round(performance.now() - begun);
    const made = new Date().toISOString();
    return { simulacra: 'sheet', version: 1, made, milliseconds, shard: options.shard, components };
  } finally {
    await Promise.all(projects.map((project) => project.close()));
    await close();
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

interface Job {
  readonly file: string;
  readonly project: ServedProject | undefined;
  readonly failure: unknown;
}

async function drawAll(
  jobs: readonly Job[],
  makeSlot: () => Slot,
  options: DrawOptions,
): Promise<SheetComponent[]> {
  const drawn = new Array<SheetComponent>(jobs.length);
  const { pages = Math.min(4, availableParallelism()) } = options;
  let next = 0;
  const work = async () => {
    const slot = makeSlot();
    try {
      while (next < jobs.length && !options.stop?.aborted) {
        const at = next++;
        drawn[at] = await drawJob(jobs[at]!, slot, options);
      }
    } finally {
      await slot.close();
    }
  };
  await Promise.all(Array.from({ length: Math.min(pages, jobs.length) }, work));
  return drawn.filter(Boolean);
}

async function drawJob(
  { file, project, failure }: Job,
  slot: Slot,
  options: DrawOptions,
): Promise<SheetComponent> {
  const name = relative(options.root, file).replaceAll('\\', '/');
  const sitting: Sitting = { slot, project: project!, options, name, file };
  const place = {
    file: name,
    project: relative(options.root, project?.root ?? projectOf(file, options.root)).replaceAll('\\', '/'),
  };
  if (!project) return { ...place, ...nothingOf(name, failure) };
  // A package that was prepared late makes the page load another copy of it: begin anew then.
  const axe = options.isAudited === false ? undefined : await readAxe(project.root);
  for (let attempt = 1; ; attempt++) {
    const before = project.prepared();
    const drawing = new FileDrawing(sitting);
    const drawn = await drawing
      .draw(inPageUrl(project), axe)
      .catch((problem: unknown) => nothingOf(name, problem));
    if (attempt > 3 || project.prepared() === before) return { ...place, ...drawn };
  }
}

const inPageUrl = (project: ServedProject) => project.urlOf(join(ours, 'in-page.js'));

const nothingOf = (name: string, failure: unknown) => ({
  component: name
    .split('/')
    .at(-1)!
    .replace(/\.states\.\w+$/, ''),
  states: [],
  pairs: { compared: 0, apart: 0 },
  failures: [failedOf(failure)],
});
