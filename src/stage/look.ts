import { directing } from '../core/director';
import { type SimulacraError } from '../core/errors/error';
import { print } from '../core/print';
import { fitting } from './declared';
import { explain } from './errors';
import { explainMany, explainNone } from '../page/explain';
import { isLocator, printLocator, refuseNoLocator, type Locator } from '../page/locators';
import { looking } from '../page/looking';
import { nameOrTextOf, textOf } from '../page/names';
import { locate } from '../page/query';
import { nearest } from '../core/near';
import type { Stage } from './stage';
import type { Target } from './subject';

/** A call as the user wrote it: `click(role('button', 'Log'))`. */
export const printAsked = (stage: Stage, method: string, target: Target): string =>
  `${method}(${isLocator(target) ? printLocator(target, stage.view().nameOf) : print(target)})`;

/** What was asked, worded only for a failure. */
type Asked = () => string;

/** Every element a locator fits. @throws SIM-SUBJECT-GONE, SIM-LOCATOR */
export function lookFor(stage: Stage, locator: Locator, asked: Asked, calledAt: Error): HTMLElement[] {
  refuseNoLocator(locator);
  stage.refuseGone(asked, calledAt);
  directing.current?.look();
  return locate(locator, stage.view()) as HTMLElement[];
}

/** What each element says that a locator fits. @throws SIM-SUBJECT-GONE, SIM-LOCATOR */
export const readTexts = (stage: Stage, locator: Locator, asked: Asked, calledAt: Error): string[] =>
  looking(stage.container.ownerDocument, () =>
    lookFor(stage, locator, asked, calledAt).map((element) => textOf(element) || nameOrTextOf(element)),
  );

/** The one element a target stands for. @throws SIM-FIND-NONE and its kin, SIM-FIND-MANY */
export function lookForOne(stage: Stage, target: Target, asked: Asked, calledAt: Error): HTMLElement {
  if ((target as Partial<Element>)?.nodeType === 1) {
    stage.refuseGone(asked, calledAt);
    return target as HTMLElement;
  }
  return looking(stage.container.ownerDocument, () => {
    const found = lookFor(stage, target as Locator, asked, calledAt);
    if (found.length === 1) return found[0]!;
    throw stage.withCauses(
      found.length === 0
        ? wordNone(stage, target as Locator, calledAt)
        : explainMany(target as Locator, stage.view(), found, stage.background(calledAt)),
    );
  });
}

/** Words why a locator found nothing. */
export function wordNone(stage: Stage, locator: Locator, calledAt: Error | undefined): SimulacraError {
  if (locator.sought.by !== 'part') return explainNone(locator, stage.view(), stage.background(calledAt));
  const { component } = locator.sought;
  // With `inside`, an element may exist elsewhere but not in there.
  if (locator.outer && locate({ ...locator, outer: undefined }, stage.view(), true).length > 0)
    return explainNone(locator, stage.view(), stage.background(calledAt));
  const { length } = stage.mounted?.instancesOf(fitting(stage.adapter, component)) ?? [];
  return wordNoPart(stage, stage.view().nameOf(component), calledAt, length);
}

/** Words why a part is not on the page, by the parts that were rendered. */
export function wordNoPart(
  stage: Stage,
  part: string,
  calledAt: Error | undefined,
  bare = 0,
): SimulacraError {
  const rendered = stage.setting.stubs.renderedNames;
  const near = rendered.includes(part) ? undefined : nearest(part, rendered);
  const fields = { subject: stage.setting.name, part, rendered, bare, nearest: near };
  return explain('SIM-PART-NONE', fields, stage.background(calledAt));
}
