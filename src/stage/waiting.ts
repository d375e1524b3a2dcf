import { readClock, startTimer } from '../core/host';
import { printThrown } from '../core/print';
import { printSpan } from '../core/spans';
import { shared } from '../core/shared';
import { pageTime, readPageTime } from '../core/page-time';
import { describe } from '../page/describe';
import { whatIsThere } from '../page/nearby';
import { phraseLocator, printLocator, type Locator } from '../page/locators';
import { explain, refuse } from './errors';
import { lookFor } from './look';
import { pass } from './rest';
import type { Ground } from './ground';
import type { Stage } from './stage';
import type { Patience } from './subject';
import { printDue, roundedUp, whatIsDue, type Due } from './scheduled';
import { runNext } from './time';
import { observeChanges } from '../page/globals/observing';

/** A step that waits. */
export interface Wait<S extends Ground = Ground> {
  readonly stage: S;
  readonly patience: Patience;
  readonly calledAt: Error;
  /** True once the test stands still until this step ends. */
  readonly isAwaited: () => boolean;
}

/** Why a wait was given up. */
export type GivenUp =
  | { readonly why: 'over'; readonly waited: number }
  /** Nothing is under way, so nothing can change. */
  | { readonly why: 'still' }
  /** What comes next comes too late. */
  | { readonly why: 'later'; readonly due: Due; readonly waited: number };

/** Waits until a locator fits something, or nothing. @throws SIM-WAIT-OVER */
export async function waitFor(wait: Wait<Stage>, locator: Locator, comes: boolean): Promise<HTMLElement[]> {
  const { stage, calledAt } = wait;
  const asked = () => printLocator(locator, stage.view().nameOf);
  let found: HTMLElement[] = [];
  const givenUp = await waitUntil(wait, () => {
    found = lookFor(stage, locator, asked, calledAt);
    return found.length > 0 === comes;
  });
  if (!givenUp) return found;
  const there = comes ? whatIsThere(locator, stage.view()).there : found.map(describe);
  const what = phraseLocator(locator, stage.view().nameOf);
  const fields = { what, comes, there, ...wordGivenUp(stage, givenUp) };
  return refuse('SIM-WAIT-OVER', fields, stage.background(calledAt));
}

/** Waits until a check holds: it neither throws nor returns false. @throws SIM-WAIT-CHECK */
export async function waitForCheck<T>(wait: Wait, check: () => T | Promise<T>): Promise<T> {
  const { stage, calledAt } = wait;
  if (typeof check !== 'function') {
    const wanted = 'a function: eventually(() => expect(log.calls).toHaveLength(2))';
    refuse('SIM-OPTION-VALUE', { option: 'check', value: check, wanted }, { calledAt });
  }
  let value: T;
  let thrown: unknown;
  const givenUp = await waitUntil(wait, async () => {
    try {
      value = await check();
      thrown = undefined;
      return value !== false;
    } catch (error) {
      thrown = error;
      return false;
    }
  });
  if (!givenUp) return value!;
  const threw = thrown === undefined ? undefined : printThrown(thrown);
  const fields = { threw, ...wordGivenUp(stage, givenUp) };
  const told = thrown === undefined ? {} : { cause: thrown };
  throw explain('SIM-WAIT-CHECK', fields, { ...stage.background(calledAt), ...told });
}

function wordGivenUp(stage: Ground, givenUp: GivenUp) {
  const pending = stage.network.requests
    .filter(({ status }) => status === undefined)
    .map(({ method, url }) => `${method} ${new URL(url).pathname}`);
  const { why } = givenUp;
  return {
    why,
    waited: 'waited' in givenUp ? givenUp.waited : undefined,
    pending,
    due: why === 'later' ? printDue(givenUp.due) : undefined,
    span: why === 'later' ? printSpan(roundedUp(givenUp.due.in)) : undefined,
    isVirtual: pageTime.clock !== undefined,
    subject: stage.setting.name,
  };
}

/**
 * Looks again whenever something happened, until a check holds or nothing can make it hold any more.
 *
 * @returns why it was given up; undefined where the check holds
 */
async function waitUntil(wait: Wait, holds: () => boolean | Promise<boolean>): Promise<GivenUp | undefined> {
  const { stage, patience, calledAt } = wait;
  const { within = 1000 } = patience;
  if (!(typeof within === 'number' && within >= 0)) {
    const fields = { option: 'within', value: within, wanted: 'milliseconds, from 0' };
    refuse('SIM-OPTION-VALUE', fields, { calledAt });
  }
  const deadline = readPageTime() + within;
  // A virtual clock stands still while other steps or subjects are at work.
  const end = readClock() + within;
  for (;;) {
    await stage.atRest();
    if (await holds()) return undefined;
    const left = deadline - readPageTime();
    const next = untilNext(stage);
    const tooLate = (): GivenUp => ({ why: 'later', due: whatIsDue(stage)[0]!, waited: within });
    const { clock } = pageTime;
    if (clock && next !== undefined) {
      if (next > left) return tooLate();
      await stage.moving(() => runNext(stage, clock));
      continue;
    }
    if (clock && isStill(wait)) return { why: 'still' };
    if (left <= 0 || readClock() >= end) return { why: 'over', waited: within };
    if (!clock && isStill(wait)) {
      if (next === undefined) return { why: 'still' };
      if (next > left) return tooLate();
    }
    await somethingHappens(stage, left);
  }
}

/** The milliseconds until something is due; undefined where nothing is scheduled. */
function untilNext({ environment }: Ground): number | undefined {
  const { clock } = pageTime;
  const at = clock ? clock.next?.at : environment.work.timers[0]?.due;
  return at === undefined ? undefined : Math.max(0, at - readPageTime());
}

/** True where nothing but a timer can change anything: the test waits for this step only, and nothing is under way. */
function isStill({ stage, isAwaited }: Wait): boolean {
  const others = [...shared.steps].filter(({ isOver }) => !isOver).length > 1;
  const isAnimated = (globalThis.document?.getAnimations?.() ?? []).some(
    ({ playState }) => playState === 'running',
  );
  const isAlone = shared.environments.size === 1;
  return (
    isAwaited() && isAlone && !others && !isAnimated && !stage.isBusy && stage.environment.work.promised === 0
  );
}

// What nothing reports (the test beginning to await this step, a source we cannot see) is noticed by this.
const glance = 20;

/** Resolves when a timer, a request or the page has changed, or after some milliseconds. */
const somethingHappens = ({ environment, adapter, container }: Ground, left: number): Promise<void> =>
  pass(
    adapter,
    () =>
      new Promise<void>((resolve) => {
        const observer = watchPage(container, () => end());
        const end = () => {
          observer?.disconnect();
          environment.work.onChange = undefined;
          callOff();
          resolve();
        };
        const callOff = startTimer(Math.min(left, glance), end);
        environment.work.onChange = end;
      }),
  );

function watchPage(container: Element | undefined, changed: () => void): MutationObserver | undefined {
  if (!container) return undefined;
  const { ownerDocument } = container;
  const observer = observeChanges(ownerDocument, changed);
  const everything = { subtree: true, childList: true, characterData: true, attributes: true };
  observer.observe(ownerDocument.body, everything);
  return observer;
}
