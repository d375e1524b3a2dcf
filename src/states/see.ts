import { locatorFor } from '../page/describe';
import { css } from '../page/locators';
import { looking } from '../page/looking';
import { nameOrTextOf, textOf } from '../page/names';
import { lacks, locate, type View } from '../page/query';
import { roleOf } from '../page/roles';
import { printOutline } from '../stage/outline';
import type { ReadOptions } from '../stage/plan';
import type { Stage } from '../stage/stage';
import type { Check } from '../stage/state';

/* What a page shows, as far as declared states go. */

/** True where all of it is so. */
export const allHold = (checks: readonly Check[], view: View): boolean =>
  checks.every((check) => holds(check, view));

function holds({ locator, times }: Check, view: View): boolean {
  if (lacks(locator, view)) return times === 0;
  try {
    const { length } = locate(locator, view);
    return times === undefined ? length > 0 : length === times;
  } catch {
    // What cannot be looked for in this state, a part inside of another for example, is not there.
    return false;
  }
}

/** What a page has: code that finds it, and how often it does. */
export interface Signs {
  readonly found: ReadonlyMap<string, number>;
  readonly outline: string;
}

/** The rendered tree, without markup. */
export const printPage = ({ mounted, container }: Stage): string =>
  mounted ? looking(container.ownerDocument, () => printOutline(mounted.tree(), Infinity)) : '';

const most = 400;

export function readSigns(stage: Stage): Signs {
  const found = new Map<string, number>();
  for (const record of stage.setting.stubs.records) {
    const { length } = record.inPageOrder().filter((instance) => instance.element());
    if (length > 0) found.set(`part(${record.name})`, length);
  }
  looking(stage.container.ownerDocument, () => {
    const all = locate(css('*'), stage.view()).slice(0, most);
    for (const sign of all.filter(isSign).map(locatorFor)) found.set(sign, (found.get(sign) ?? 0) + 1);
  });
  return { found, outline: printPage(stage) };
}

const isSign = (element: Element): boolean =>
  roleOf(element)
    ? nameOrTextOf(element) !== ''
    : element.childElementCount === 0 && textOf(element) !== '' && textOf(element).length < 60;

/** What one page has and another has not, as code. */
export const onlyIn = ({ found }: Signs, other: Signs): string[] =>
  [...found.keys()].filter((sign) => !other.found.has(sign));

/** What both have, and one of them not as often as the other: pairs of code and number. */
export const oftenerIn = ({ found }: Signs, other: Signs): string[] =>
  [...found]
    .filter(([sign, count]) => (other.found.get(sign) ?? count) !== count)
    .map(([sign, count]) => `[${sign}, ${count}]`);

/** What a subject had use for, and what there was. */
export interface Used {
  readonly routes: ReadonlyMap<string, boolean>;
  readonly stubs: ReadonlyMap<string, boolean>;
  readonly provided: ReadonlyMap<string, boolean>;
}

export function readUsed({ network, setting }: Stage, { provide }: ReadOptions): Used {
  const { stubs, adapter } = setting;
  return {
    routes: new Map(network.keys.map((key) => [key, network.requests.of(key).length > 0])),
    stubs: new Map(stubs.records.map(({ name, used }) => [name, used])),
    provided: new Map(provide.map(({ token, used }) => [adapter.nameOfToken(token), used])),
  };
}
