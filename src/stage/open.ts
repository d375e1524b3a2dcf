import type { Chronicle } from '../core/chronicle';
import { Environment } from '../core/environment';
import { directed } from '../core/director';
import { calledFrom } from '../core/errors/called-from';
import { runAs } from '../core/ownership';
import { makeStep } from '../core/step';
import { prepareRoutes } from '../network/prepare';
import { refuseUnused, type AskedRequests } from '../network/asked';
import { enterSurroundings, guard, putUp } from './beginning';
import { refuse } from './errors';
import { explained } from './explained';
import { Ground, type Pace } from './ground';
import { installOnce } from './install';
import { checkOptions, type CommonOptions } from './options';
import { makePage, type OpenPage } from './page';
import type { Patience } from './subject';
import { makeTime, type Time } from './time';
import { waitForCheck } from './waiting';

/** What surrounds code that renders nothing. */
export type OpenOptions = Pick<CommonOptions, 'network' | 'time' | 'logs' | 'leaks' | 'page'>;

/**
 * What surrounds a service, a store or a function that renders nothing: its network, its time, its page, and a
 * record of what happened. It ends with the test.
 *
 * @example
 * const bench = await open({ network: { 'GET /api/hives/:hiveId': hives[0] } });
 * const response = await bench.run(() => fetch('/api/hives/h1'));
 * expect(await response.json()).toEqual(hives[0]);
 * expect(bench.requests).toHaveLength(1);
 */
export interface Bench {
  /** Everything that happened so far, in order. */
  readonly chronicle: Chronicle;
  /** Every request so far, in order. */
  readonly requests: AskedRequests;
  /** The time. It stands still with the option `time: 'virtual'`. */
  readonly time: Time;
  /** What the page is like, to be changed during a test. */
  readonly page: OpenPage;
  /**
   * Runs code as the bench's own, also where other subjects are up, and resolves at rest.
   *
   * @returns what the code returned
   */
  run<T>(work: () => T | Promise<T>): Promise<T>;
  /** Waits until a check holds: it neither throws nor returns false. @throws SIM-WAIT-CHECK */
  eventually<T>(check: () => T | Promise<T>, patience?: Patience): Promise<T>;
  /** Resolves when no work is pending. */
  atRest(): Promise<void>;
  /**
   * Checks that the code requested every route.
   *
   * @param counts how often routes must have been requested; the others, at least once: `{ 'POST /api/hives': 1 }`
   * @throws SIM-ROUTE-UNUSED, SIM-ROUTE-TIMES, SIM-ROUTE-UNKNOWN
   */
  everyRouteAsked(counts?: Readonly<Record<string, number>>): void;
  /** Ends it before the test does. @throws all problems of the test so far */
  takeDown(): Promise<void>;
}

const name = 'the bench';
const known = ['network', 'time', 'logs', 'leaks', 'page'] as const;

/** Nothing renders, so there is nothing to wait for but the work itself. */
const pace: Pace = {
  settle: async (work) => void (await work()),
  settleNow: (work) => work(),
};

/** What `open` does. @param below the function that a test calls */
export function openBench(options: OpenOptions, below: (...args: never[]) => unknown): Promise<Bench> {
  const calledAt = calledFrom('open', below);
  // It exists at once, so that a test that ends before it is up still takes it down.
  const environment = new Environment(name);
  return makeStep(
    'open',
    calledAt,
    putUp(environment, calledAt, () => setUp(environment, options, calledAt)),
  );
}

async function setUp(environment: Environment, options: OpenOptions, calledAt: Error): Promise<Bench> {
  checkOptions(options, [], 'open()', calledAt, known);
  installOnce();
  if (options.page !== undefined && typeof document === 'undefined')
    refuse('SIM-NO-PAGE', { runner: 'a simulated one such as jsdom' }, { calledAt });
  const entering = enterSurroundings(environment, options, calledAt);
  if (entering) await entering;
  const routes = options.network ?? {};
  await prepareRoutes(routes);
  const ground = new Ground(environment, { adapter: pace, name, routes });
  ground.gesture = 'opened the bench';
  environment.onUncaught = ground.onListenerThrew;
  guard(ground, options, calledAt);
  environment.sandbox.onTakeDown(() => ground.refuseLeaks());
  return makeBench(ground);
}

function makeBench(ground: Ground): Bench {
  const step = <T>(
    method: 'run' | 'atRest' | 'eventually',
    work: (calledAt: Error, isAwaited: () => boolean) => Promise<T>,
  ): Promise<T> => {
    const calledAt = calledFrom(method, bench[method] as (...args: never[]) => unknown);
    const made: { step?: Promise<T> & { readonly isAwaited?: boolean } } = {};
    const done = explained(ground, calledAt, () =>
      directed(method, () => work(calledAt, () => made.step?.isAwaited === true)),
    );
    return (made.step = makeStep(method, calledAt, done));
  };
  let time: Time | undefined;
  let page: OpenPage | undefined;
  const bench: Bench = {
    chronicle: ground.chronicle,
    requests: ground.network.requests,
    get time() {
      return (time ??= makeTime(ground));
    },
    get page() {
      return (page ??= makePage(ground));
    },
    run: (work) =>
      step('run', async (calledAt) => {
        ground.refuseGone('run()', calledAt);
        ground.gesture = 'ran code';
        // Answers come while the code waits for them, not only when it is over.
        const result = await runAs(ground.environment, work);
        await ground.atRest();
        return result;
      }),
    eventually: (check, patience = {}) =>
      step('eventually', (calledAt, isAwaited) =>
        waitForCheck({ stage: ground, patience, calledAt, isAwaited }, check),
      ),
    atRest: () => step('atRest', () => ground.atRest()),
    everyRouteAsked: (counts) =>
      refuseUnused(ground.network, calledFrom('everyRouteAsked', bench.everyRouteAsked), counts),
    takeDown: () =>
      makeStep('takeDown', calledFrom('takeDown', bench.takeDown), ground.environment.takeDown()),
  };
  return bench;
}
