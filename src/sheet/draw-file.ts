import type { Box } from '../browser/slot';
import { markPage, type Slot } from '../browser/slot';
import type { ServedProject } from '../browser/project';
import { complaintOf } from '../browser/complaint';
import { explain } from '../browser/errors';
import type { DrawOptions } from './draw';
import { failedOf } from './failed';
import { audit } from './audit';
import type { DeclaredIn, Found, Scheme, SheetState, Verdict, View } from './model';

/** What one file is drawn with. */
export interface Sitting {
  readonly slot: Slot;
  readonly project: ServedProject;
  readonly options: DrawOptions;
  /** The file, and its name from the folder the sheet is made in. */
  readonly file: string;
  readonly name: string;
}

const high = 800;

/** The states of one file, each on each screen. */
export class FileDrawing {
  readonly #sitting: Sitting;
  readonly #limit: number;
  #begin: () => Promise<DeclaredIn> = () => Promise.reject(new Error());

  constructor(sitting: Sitting) {
    this.#sitting = sitting;
    this.#limit = sitting.options.within ?? 15_000;
  }

  /** @throws SIM-PAGE-LOAD, and what keeps the whole file from being drawn */
  async draw(inPage: string, axe: string | undefined) {
    this.#begin = () => this.#load(inPage, axe);
    const { component, states } = await this.#begin();
    const { widths, schemes } = this.#sitting.options;
    const screens = schemes.flatMap((scheme) => widths.map((width) => ({ width, scheme })));
    const verdicts = new Map<string, Verdict>();
    const views = new Map<string, View[]>(states.map(({ name }) => [name, []]));
    for (const [at, screen] of screens.entries()) {
      for (const { name } of states) {
        if (this.#sitting.options.stop?.aborted) break;
        const isAudited = axe !== undefined && screen.width === widths[0];
        const { view, verdict } = await this.#drawState(component, name, screen, isAudited, at === 0);
        views.get(name)!.push(view);
        if (verdict && !verdicts.has(name)) verdicts.set(name, verdict);
        if (at === 0) this.#sitting.options.onDrawn?.(this.#sitting.name, component, name);
      }
    }
    const found = await this.#sitting.slot
      .evaluate<Found>('simulacraShowing.finish()', component, this.#limit)
      .catch((failure: unknown) => ({ pairs: { compared: 0, apart: 0 }, failures: [failedOf(failure)] }));
    return {
      component,
      ...found,
      states: states.map(({ name, line }): SheetState => {
        const { failure: _, ...seen } = verdicts.get(name) ?? nothingSeen;
        return { name, line, ...seen, views: views.get(name)! };
      }),
    };
  }

  /** Loads the file into a page that nothing was done on. */
  async #load(inPage: string, axe: string | undefined): Promise<DeclaredIn> {
    const { slot, project, file, name, options } = this.#sitting;
    await slot.load(project.url);
    const first = { width: options.widths[0]!, height: high, scheme: options.schemes[0]! };
    await slot.setScreen(first);
    if (axe !== undefined) await slot.putBeside(axe);
    const urls = options.load.map((one) => JSON.stringify(project.urlOf(one)));
    const [ours, own] = [inPage, project.urlOf(file)].map((one) => JSON.stringify(one));
    const expression = `(async () => {
      ${markPage}
      ${urls.map((url) => `await import(${url});`).join('\n')}
      const [{ Showing }, module] = await Promise.all([import(${ours}), import(${own})]);
      globalThis.simulacraShowing = new Showing(module.default, ${JSON.stringify(name.split('/').at(-1))});
      return simulacraShowing.declared;
    })()`;
    try {
      return await slot.evaluate<DeclaredIn>(expression, name, Math.max(this.#limit, 60_000));
    } catch (failure) {
      const complaint = await complaintOf(project, [...options.load, file], failure);
      throw explain('SIM-PAGE-LOAD', { file: name, why: complaint }, { cause: failure });
    }
  }

  async #drawState(
    component: string,
    name: string,
    screen: { readonly width: number; readonly scheme: Scheme },
    isAudited: boolean,
    hasArrivals: boolean,
  ): Promise<{ readonly view: View; readonly verdict: Verdict | undefined }> {
    const { slot, options, name: file } = this.#sitting;
    const who = `${component} in the state "${name}"`;
    const nothing = {
      ...screen,
      picture: undefined,
      height: undefined,
      problems: undefined,
      comparison: undefined,
    };
    try {
      if (slot.isBroken) await this.#begin();
      await slot.setScreen({ ...screen, height: high });
      const show = `simulacraShowing.show(${JSON.stringify(name)}, ${hasArrivals})`;
      const box = await slot.evaluate<Box | undefined>(show, who, this.#limit);
      const problems = box && isAudited ? await audit(slot, who, this.#limit) : undefined;
      const data = box && (await slot.picture(box, who, this.#limit));
      const verdict = await slot.evaluate<Verdict>('simulacraShowing.leave()', who, this.#limit);
      const picture = data && (await options.keep({ file, component, state: name, ...screen, data }));
      const { failure } = verdict;
      return {
        verdict,
        view: { ...nothing, picture, failure, height: box?.height, problems },
      };
    } catch (failure) {
      return { view: { ...nothing, failure: failedOf(failure) }, verdict: undefined };
    }
  }
}

const nothingSeen: Verdict = {
  failure: undefined,
  declares: [],
  outline: '',
  chronicle: '',
  milliseconds: undefined,
};
