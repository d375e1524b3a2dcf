import { type SimulacraError } from '../core/errors/error';
import { print } from '../core/print';
import { fitting } from './declared';
import { explain, refuse } from './errors';
import { startTimer } from '../core/host';
import { describe } from '../page/describe';
import { explainMany, explainNone } from '../page/explain';
import { whatIsThere } from '../page/nearby';
import { isLocator, phraseLocator, printLocator, refuseNoLocator, type Locator } from '../page/locators';
import { looking } from '../page/looking';
import { locate } from '../page/query';
import { nearest } from '../core/near';
import { pass } from './rest';
import type { Stage } from './stage';
import type { Patience, Target } from './subject';

/** A call as the user wrote it: `click(role('button', 'Log'))`. */
export const printAsked = (stage: Stage, method: string, target: Target): string =>
  `${method}(${isLocator(target) ? printLocator(target, stage.view().nameOf) : print(target)})`;

/** What was asked, worded only where a failure tells of it. */
type Asked = () => string;

/** Every element a locator fits. @throws SIM-SUBJECT-GONE, SIM-LOCATOR */
export function lookFor(stage: Stage, locator: Locator, asked: Asked, calledAt: Error): HTMLElement[] {
  refuseNoLocator(locator);
  stage.refuseGone(asked, calledAt);
  return locate(locator, stage.view()) as HTMLElement[];
}

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

/** Waits until a locator fits something, or nothing. @throws SIM-WAIT-OVER */
export async function waitFor(
  stage: Stage,
  locator: Locator,
  comes: boolean,
  patience: Patience,
  calledAt: Error,
): Promise<HTMLElement[]> {
  const { within = 1000 } = patience;
  if (!(typeof within === 'number' && within >= 0))
    refuse(
      'SIM-OPTION-VALUE',
      { option: 'within', value: within, wanted: 'milliseconds, from 0' },
      { calledAt },
    );
  const asked = () => printLocator(locator, stage.view().nameOf);
  let over = false;
  const callOff = startTimer(within, () => (over = true));
  try {
    for (;;) {
      await stage.atRest();
      const found = lookFor(stage, locator, asked, calledAt);
      if (found.length > 0 === comes) return found;
      if (over) break;
      await pause(stage);
    }
  } finally {
    callOff();
  }
  const there = comes
    ? whatIsThere(locator, stage.view()).there
    : lookFor(stage, locator, asked, calledAt).map(describe);
  const pending = stage.network.requests
    .filter(({ status }) => status === undefined)
    .map(({ method, url }) => `${method} ${new URL(url).pathname}`);
  const what = phraseLocator(locator, stage.view().nameOf);
  const background = stage.background(calledAt);
  return refuse('SIM-WAIT-OVER', { what, waited: within, comes, there, pending }, background);
}

// Long enough for timers to fire, short enough not to slow a test down.
const pause = (stage: Stage) =>
  pass(stage.setting.adapter, () => new Promise<void>((resolve) => void startTimer(4, resolve)));
