import { readFileSync } from 'node:fs';
import { complaintOf } from '../browser/complaint';
import { explain } from '../browser/errors';
import type { ServedProject } from '../browser/project';
import { markPage, type Box, type Slot } from '../browser/slot';
import { lineOfStateIn } from '../states/place';
import { audit } from './audit';
import { failedOf } from './failed';
import type { DeclaredIn, Failed, Found, Scheme, SheetComponent, SheetState, Verdict, View } from './model';
import type { DrawOptions } from './options';

/** What one file is drawn with. */
export interface Sitting {
  readonly slot: Slot;
  readonly project: ServedProject;
  readonly options: DrawOptions;
  readonly file: string;
  /** The file and its project, from the folder the sheet is made in. */
  readonly place: { readonly file: string; readonly project: string };
  /** The address of what shows states on the page. */
  readonly inPage: string;
  /** The code of axe-core, where problems of accessibility are looked for. */
  readonly axe: string | undefined;
}

interface Screen {
  readonly width: number;
  readonly scheme: Scheme;
}

const high = 800;
const noneCompared = { compared: 0, apart: 0 };

/** The states of one file, each on each screen. */
export class FileDrawing {
  readonly #sitting: Sitting;
  readonly #limit: number;

  constructor(sitting: Sitting) {
    this.#sitting = sitting;
    this.#limit = sitting.options.within ?? 15_000;
  }

  /**
   * @param stamp makes the page that is there load anew only what changed
   * @throws SIM-PAGE-LOAD, and what else keeps the whole file from being drawn
   */
  async draw(stamp?: number): Promise<SheetComponent> {
    const { options, axe, place, slot, file } = this.#sitting;
    const declared = await this.#load(stamp);
    if ('failed' in declared) return { ...place, ...nothingOf(place.file, declared.failed) };
    const { component, states } = declared;
    const text = readFileSync(file, 'utf8');
    const drawn = new Map<string, SheetState>(
      states.map((name) => [name, { ...nothingSeen, name, line: lineOfStateIn(text, name), views: [] }]),
    );
    const soFar = (found: Found & { readonly component: string }): SheetComponent => ({
      ...{ ...place, ...found, states: [...drawn.values()] },
    });
    const unfinished = { component, pairs: noneCompared, failures: [] };
    const looked = options.lookedAt?.();
    const at = looked?.file === place.file ? looked : undefined;
    const screens = firstOf(screensOf(options), (one) => one.width === at?.width && one.scheme === at.scheme);
    for (const [turn, screen] of screens.entries()) {
      for (const name of firstOf(states, (one) => one === at?.state)) {
        if (options.stop?.aborted) break;
        const isAudited = axe !== undefined && screen.width === options.widths[0];
        const { view, verdict } = await this.#drawState(component, name, screen, isAudited, turn === 0);
        const before = drawn.get(name)!;
        const isFirst = before.views.every(({ picture }) => picture === undefined);
        const { failure: _, ...seen } = (isFirst && verdict) || { ...before, failure: undefined };
        drawn.set(name, { ...before, ...seen, views: [...before.views, view] });
        options.onDrawn?.(soFar(unfinished), name);
      }
    }
    const found = await slot
      .evaluate<Found & { component: string }>('simulacraShowing.finish()', component, this.#limit)
      .catch((failure: unknown) => ({ ...unfinished, failures: [failedOf(failure)] }));
    return soFar(found);
  }

  /** Loads the page, and some files with all they need, so that what is drawn again comes sooner. */
  async warmUp(files: readonly string[]): Promise<void> {
    const { slot, project, options, inPage } = this.#sitting;
    await this.#loadPage();
    const first = [...options.load.map((one) => project.urlOf(one)), inPage];
    const expression = `(async () => {
      ${markPage}
      ${first.map((url) => `await ${imported(url)};`).join('\n')}
      await Promise.allSettled([${files.map((file) => imported(project.urlOf(file))).join(', ')}]);
    })()`;
    await slot.evaluate(expression, 'the page', 60_000);
  }

  async #loadPage(): Promise<void> {
    const { slot, project, options, axe } = this.#sitting;
    await slot.load(project.url);
    await slot.setScreen({ width: options.widths[0]!, height: high, scheme: options.schemes[0]! });
    if (axe !== undefined) await slot.putBeside(axe);
  }

  /** Loads the file into the page. */
  async #load(stamp?: number): Promise<DeclaredIn | { readonly failed: Failed }> {
    const { slot, project, file, place, options, inPage } = this.#sitting;
    const isKept = stamp !== undefined && slot.hasLoaded(project.url);
    if (!isKept) await this.#loadPage();
    const own = project.urlOf(file) + (isKept ? `?t=${stamp}` : '');
    const expression = `(async () => {
      ${markPage}
      ${options.load.map((one) => `await ${imported(project.urlOf(one))};`).join('\n')}
      const [{ Showing }, module] = await Promise.all([${imported(inPage)}, ${imported(own)}]);
      try {
        globalThis.simulacraShowing = new Showing(module.default, ${JSON.stringify(place.file.split('/').at(-1))});
        return simulacraShowing.declared;
      } catch (failure) {
        return { failed: { code: failure.code, message: failure.message } };
      }
    })()`;
    try {
      return await slot.evaluate<DeclaredIn | { failed: Failed }>(
        expression,
        place.file,
        Math.max(this.#limit, 60_000),
      );
    } catch (failure) {
      const why = await complaintOf(project, [...options.load, file], failure);
      throw explain('SIM-PAGE-LOAD', { file: place.file, why }, { cause: failure });
    }
  }

  async #drawState(
    component: string,
    name: string,
    screen: Screen,
    isAudited: boolean,
    hasArrivals: boolean,
  ): Promise<{ readonly view: View; readonly verdict: Verdict | undefined }> {
    const { slot, options, place } = this.#sitting;
    const who = `${component} in the state "${name}"`;
    const nothing = { ...screen, ...notDrawn };
    try {
      if (slot.isBroken) await this.#load();
      await slot.setScreen({ ...screen, height: high });
      const show = `simulacraShowing.show(${JSON.stringify(name)}, ${hasArrivals})`;
      const box = await slot.evaluate<Box | undefined>(show, who, this.#limit);
      const problems = box && isAudited ? await audit(slot, who, this.#limit) : undefined;
      const data = box && (await slot.picture(box, who, this.#limit));
      const verdict = await slot.evaluate<Verdict>('simulacraShowing.leave()', who, this.#limit);
      const about = { file: place.file, component, state: name, ...screen };
      const picture = data && (await options.keep({ ...about, data }));
      const { failure } = verdict;
      return { verdict, view: { ...nothing, picture, failure, height: box?.height, problems } };
    } catch (failure) {
      return { view: { ...nothing, failure: failedOf(failure) }, verdict: undefined };
    }
  }
}

const imported = (url: string) => `import(${JSON.stringify(url)})`;

const screensOf = ({ widths, schemes }: DrawOptions): Screen[] =>
  schemes.flatMap((scheme) => widths.map((width) => ({ width, scheme })));

/** The same, with those first that are wanted first. */
const firstOf = <T>(all: readonly T[], isFirst: (one: T) => boolean): T[] => [
  ...all.filter(isFirst),
  ...all.filter((one) => !isFirst(one)),
];

/** What a component is called as long as only its file is known. */
const nameOf = (file: string): string =>
  file
    .split('/')
    .at(-1)!
    .replace(/\.states\.\w+$/, '');

const notDrawn = { picture: undefined, height: undefined, problems: undefined, comparison: undefined };
const nothingSeen: Verdict = {
  ...{ failure: undefined, declares: [], outline: '', chronicle: '', milliseconds: undefined },
};

/** The report about a file none of whose states could be drawn. */
export const nothingOf = (file: string, failure: Failed) => ({
  ...{ component: nameOf(file), states: [], pairs: noneCompared, failures: [failure] },
});
