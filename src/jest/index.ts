import { isPromise } from '../core/is-promise';
import { hookTakeDown, takeDown } from '../core/take-down';
import { explain } from '../page/errors';
import { print } from '../core/print';
import type { Locator } from '../page/locators';
import { installOnce } from '../stage/install';
import { verdicts } from '../stage/subject';
import { readRunner } from './runner';
import type { Verdict, Verdicts } from '../stage/verdicts';

installOnce();

/** Matchers for subjects. */
export interface SubjectMatchers<R> {
  /**
   * The subject shows something: once or more, or as often as `times` says.
   *
   * @example
   * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': hives } });
   * expect(board).toShow(role('article'), { times: 3 });
   * expect(board).not.toShow(role('alert'));
   */
  toShow(locator: Locator, options?: { readonly times?: number }): R;
  /**
   * The subject has shown something, now or at any earlier moment.
   *
   * @example
   * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': hives } });
   * expect(board).toHaveShown(role('status', 'Loading hives'));
   */
  toHaveShown(locator: Locator): R;
}

declare global {
  // The type parameters must be those the runner's own declaration has.
  // eslint-disable-next-line @typescript-eslint/no-namespace
  namespace jest {
    // eslint-disable-next-line @typescript-eslint/no-unused-vars, @typescript-eslint/no-empty-object-type
    interface Matchers<R, T = {}> extends SubjectMatchers<R> {}
  }
}

function verdictsOf(subject: unknown, matcher: string): Verdicts {
  const found = (subject as { [verdicts]?: Verdicts } | null)?.[verdicts];
  if (found) return found;
  throw explain('SIM-NO-SUBJECT', { matcher, given: print(subject), isPromise: isPromise(subject) });
}

const matchers = {
  toShow: (subject: unknown, locator: Locator, { times }: { times?: number } = {}): Verdict =>
    verdictsOf(subject, 'toShow').shows(locator, times),
  toHaveShown: (subject: unknown, locator: Locator): Verdict =>
    verdictsOf(subject, 'toHaveShown').hasShown(locator),
};

const { expect: expectation, afterEach: after } = readRunner();
expectation?.extend(matchers);
// Take-down also runs after a test that failed.
hookTakeDown(after);

export { matchers, takeDown };
export { testStates } from './states';
export type { TestStatesOptions } from './states';
