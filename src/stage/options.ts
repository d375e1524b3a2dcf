import { print } from '../core/print';
import { refuse } from './errors';
import { nearest } from '../core/near';
import type { Channel, Connection } from '../core/channel';
import type { Held } from '../core/hold';
import type { Stream } from '../core/stream';
import type { Failure, InTurn, Later } from '../core/answers';
import { isSwap, type Swap } from '../seam/swap';
import { checkAccessible, type Accessible } from './accessible';
import type { Leaks } from './leaks';
import type { PageOption } from '../page/settings/settings';
import type { ReadOptions } from './plan';
import type { Stage } from './stage';
import { asStub } from './stubs';
import type { TimeOption } from './time';
import type { OperationKind } from '../network/operations';
import type { Method } from '../network/routes';

/** What answers a route. */
export type NetworkAnswer =
  | Failure
  | Held<unknown>
  | Later<unknown>
  | InTurn<unknown>
  | Response
  | Json
  | undefined
  | ((request: Request, params: Record<string, string>) => unknown);

// An interface has no index signature, so JSON values are defined by what they are not.
type Json = string | number | boolean | null | object;

/* eslint-disable @typescript-eslint/no-explicit-any -- whatever messages a component sends and receives */
/** What answers a WebSocket. */
export type SocketAnswer =
  | Channel<any, any>
  | Stream<any>
  | Failure
  | Held<any>
  | Later<unknown>
  | InTurn<unknown>
  | ((connection: Connection<any, any>, params: Record<string, string>) => unknown);
/* eslint-enable @typescript-eslint/no-explicit-any */

/** What answers an operation of GraphQL: its data; an error, alone or in the place of a field; a function of the variables. */
export type OperationAnswer =
  | Exclude<NetworkAnswer, Response | ((...args: never[]) => unknown)>
  | Error
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- the variables of whatever operation
  | ((variables: any, request: Request) => unknown);

/**
 * Routes and their answers: `'GET /api/hives/:hiveId': answer`, `'WS /live/scales': channel()`,
 * `'QUERY InFlower': { plants }`.
 */
export type Routes = {
  readonly [route in `${Exclude<Method, 'WS' | OperationKind>} ${string}`]?: NetworkAnswer;
} & { readonly [route in `${OperationKind} ${string}`]?: OperationAnswer } & {
  readonly [route in `WS ${string}`]?: SocketAnswer;
};

/** What may answer with a type: the value, or any answer that comes to it. */
type Answering<T> =
  | T
  | Failure
  | Response
  | Held<T>
  | Later<T | Failure | Held<T>>
  | InTurn<T | Failure | Held<T> | Later<T>>
  // eslint-disable-next-line @typescript-eslint/no-explicit-any -- a request and its parameters, or an operation's variables
  | ((asked: any, more: any) => Answering<T> | Promise<Answering<T>>);

/**
 * Routes whose answers have the types of a contract, so that a fixture that does not fit it does not compile.
 * A route may have a query.
 *
 * @example
 * interface Answers {
 *   'GET /api/hives': Hive[];
 *   'GET /api/hives/:hiveId': Hive;
 * }
 * const network: RoutesOf<Answers> = { 'GET /api/hives?yard=north': hives, 'GET /api/hives/:hiveId': fail(404) };
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network });
 * expect(board).toShow(text('Anemone'));
 */
export type RoutesOf<Answers> = {
  readonly [
    route in keyof Answers as route | (route extends string ? `${route}?${string}` : never)
  ]?: Answering<Answers[route]>;
};

/** The options that mean the same in every framework. */
export interface CommonOptions {
  /** How many levels of components are real, counting the subject: `1` stubs every child. */
  readonly depth?: 'full' | number;
  /** Children that stay real beyond the depth: components, or their names. */
  readonly keep?: readonly unknown[];
  /** Answers for requests. The keys use the URL Pattern standard. */
  readonly network?: Routes;
  /** Virtual time: it stands still until the test moves it. Without this option time is real. */
  readonly time?: TimeOption;
  /** What the page is like: its size, colours, language, storage, address and more. */
  readonly page?: PageOption;
  /**
   * Errors and warnings that are expected to be logged: parts of their texts, or patterns. Each has to happen, and
   * is not printed. Any other fails the test. `'allowed'` lets everything pass.
   */
  readonly logs?: readonly (string | RegExp)[] | 'allowed';
  /**
   * What is done where the subject leaves something behind (a timer, a listener of the window or document, an
   * observer, a channel, a subscription to a stream, an element of the body): `'fail'` unless said otherwise. What
   * packages leave is reported once, and fails no test. A list of texts and patterns says what may stay:
   * `leaks: ['a-package', /"resize"/]`.
   */
  readonly leaks?: Leaks;
  /**
   * Checks with the package axe-core whether everyone can use what is shown, each time it comes to rest:
   * `accessible: axe`, or `{ axe, except: ['a-rule'] }`. What needs a layout is checked in a browser only.
   */
  readonly accessible?: Accessible;
  /** Replaces what modules export: `swap(() => import('./useScale'), { useScale: … })`. */
  readonly swap?: readonly AnySwap[];
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- of whatever module
type AnySwap = Swap<any>;

/** Every option, as the stage reads it. */
export interface AllOptions extends CommonOptions {
  readonly props?: object;
  readonly stub?: readonly unknown[];
  readonly provide?: readonly (readonly [unknown, unknown])[];
  readonly wrap?: readonly unknown[];
  readonly slots?: Readonly<Record<string, unknown>>;
  /** Swaps that are a team's defaults, and need not be used. */
  readonly spareSwaps?: ReadonlySet<Swap>;
  /** How many of what is provided, from the first, are a team's defaults. */
  readonly spareProvisions?: number;
  /** How many of the logs, from the first, are a team's defaults. */
  readonly spareLogs?: number;
  /** Told of the stage before anything is rendered on it: what verifies declared states looks on. */
  readonly onStage?: (stage: Stage, read: ReadOptions) => void;
}

const common = [
  'props',
  'stub',
  'provide',
  'wrap',
  'depth',
  'keep',
  'network',
  'swap',
  'time',
  'logs',
  'leaks',
  'page',
  'accessible',
] as const;
// What merging has written down, and no user.
const ours = ['spareSwaps', 'spareProvisions', 'spareLogs', 'onStage'];
const lists = ['stub', 'provide', 'wrap', 'keep', 'swap'] as const;

/** What the frameworks and the trade call an option elsewhere. */
const synonyms = new Map([
  ...['inputs', 'attrs', 'attributes', 'propsData'].map((name) => [name, 'props'] as const),
  ...['imports', 'plugins', 'modules', 'wrapper', 'wrappers'].map((name) => [name, 'wrap'] as const),
  ...['injections', 'context', 'contexts', 'services'].map((name) => [name, 'provide'] as const),
  ...['children', 'content'].map((name) => [name, 'slots'] as const),
  ...['axe', 'a11y', 'accessibility'].map((name) => [name, 'accessible'] as const),
  ...['requests', 'handlers', 'responses', 'server'].map((name) => [name, 'network'] as const),
]);

/** @throws SIM-OPTION-UNKNOWN, SIM-OPTION-VALUE */
export function checkOptions(
  options: AllOptions,
  own: readonly string[],
  of: string,
  calledAt: Error,
  shared: readonly string[] = common,
): void {
  const known = [...shared, ...own];
  for (const option of Object.keys(options)) {
    if (known.includes(option) || ours.includes(option)) continue;
    const meant = nearest(option, known) ?? known.find((one) => one === synonyms.get(option));
    refuse('SIM-OPTION-UNKNOWN', { option, known, nearest: meant, of }, { calledAt });
  }
  for (const option of ['props', 'slots', 'network'] as const) {
    const value: unknown = options[option];
    if (value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value)))
      continue;
    refuse('SIM-OPTION-VALUE', { option, value, wanted: `an object: ${option}: { … }` }, { calledAt });
  }
  for (const [slot, value] of Object.entries(options.slots ?? {})) {
    if (typeof value !== 'string' || !/^\s*<([a-z][\w-]*)\b[^>]*>.*<\/\1>\s*$/s.test(value)) continue;
    const wanted = 'a component, or an element; markup in a text would be shown as it is written';
    refuse('SIM-OPTION-VALUE', { option: `slots.${slot}`, value, wanted }, { calledAt });
  }
  for (const option of lists) {
    const value = options[option];
    if (value === undefined || Array.isArray(value)) continue;
    const wanted =
      option === 'provide'
        ? 'a list of pairs: provide: [[token, value]]'
        : `a list: ${option}: [${print(value).match(/^<?\w+>?$/)?.[0] ?? '…'}]`;
    refuse('SIM-OPTION-VALUE', { option, value, wanted }, { calledAt });
  }
  for (const one of options.wrap ?? []) {
    if (one !== undefined && one !== null) continue;
    const wanted = 'components, outermost first; one of them is missing: look at how it is imported';
    refuse('SIM-OPTION-VALUE', { option: 'wrap', value: one, wanted }, { calledAt });
  }
  for (const pair of options.provide ?? []) {
    if (Array.isArray(pair) && pair.length === 2 && pair[0] !== undefined && pair[0] !== null) continue;
    refuse(
      'SIM-OPTION-VALUE',
      { option: 'provide', value: pair, wanted: 'pairs: provide: [[Session, value]]' },
      { calledAt },
    );
  }
  for (const one of options.swap ?? []) {
    if (isSwap(one)) continue;
    const wanted = "a list of what swap() returns: swap: [swap(() => import('…'), { … })]";
    refuse('SIM-OPTION-VALUE', { option: 'swap', value: one, wanted }, { calledAt });
  }
  checkTime(options.time, calledAt);
  checkLogs(options.logs, calledAt);
  checkLeaks(options.leaks, calledAt);
  const { accessible } = options;
  if (accessible !== undefined && accessible !== false) checkAccessible(accessible, calledAt);
  const { depth } = options;
  if (depth !== undefined && depth !== 'full' && !(Number.isInteger(depth) && depth >= 1)) {
    refuse(
      'SIM-OPTION-VALUE',
      { option: 'depth', value: depth, wanted: `'full' or a whole number from 1` },
      { calledAt },
    );
  }
}

function checkLeaks(leaks: unknown, calledAt: Error): void {
  if (leaks === undefined || ['fail', 'warn', 'allowed'].includes(leaks as string)) return;
  const wanted = "'fail', 'warn', 'allowed', or a list of texts and patterns: leaks: [/\"resize\"/]";
  checkPatterns('leaks', leaks, wanted, calledAt);
}

function checkLogs(logs: unknown, calledAt: Error): void {
  if (logs === undefined || logs === 'allowed') return;
  checkPatterns('logs', logs, "a list of texts and patterns: logs: [/overheated/], or 'allowed'", calledAt);
}

function checkPatterns(option: string, given: unknown, wanted: string, calledAt: Error): void {
  for (const value of Array.isArray(given) ? (given as unknown[]) : [given]) {
    if (Array.isArray(given) && (typeof value === 'string' || value instanceof RegExp)) continue;
    refuse('SIM-OPTION-VALUE', { option, value, wanted }, { calledAt });
  }
}

function checkTime(time: unknown, calledAt: Error): void {
  if (time === undefined || time === 'virtual') return;
  const wanted = "'virtual', or { startsAt: '2031-05-04T08:00Z', zone: 'Europe/Paris' }";
  if (typeof time !== 'object' || time === null || Array.isArray(time))
    refuse('SIM-OPTION-VALUE', { option: 'time', value: time, wanted }, { calledAt });
  const known = ['startsAt', 'zone'];
  for (const option of Object.keys(time as object)) {
    if (known.includes(option)) continue;
    refuse(
      'SIM-OPTION-UNKNOWN',
      { option, known, nearest: nearest(option, known), of: 'time' },
      { calledAt },
    );
  }
}

/**
 * Options over defaults. Props and routes are merged key by key, lists are joined (defaults first,
 * so that wrappers of the defaults are the outer ones; a later value for the same context or a later
 * stub of the same child wins), everything else is replaced.
 */
export function mergeOptions(defaults: AllOptions, options: AllOptions): AllOptions {
  const merged: Record<string, unknown> = { ...defaults, ...options };
  for (const key of ['props', 'slots', 'network', 'page'] as const) {
    if (defaults[key] || options[key]) merged[key] = { ...defaults[key], ...options[key] };
  }
  for (const key of lists) {
    if (defaults[key] || options[key]) merged[key] = [...(defaults[key] ?? []), ...(options[key] ?? [])];
  }
  const spare = defaults.stub?.map((stub) => ({ ...asStub(stub), spare: true }));
  if (spare) merged['stub'] = [...spare, ...(options.stub ?? [])];
  if (Array.isArray(defaults.logs) && options.logs !== 'allowed') {
    merged['logs'] = [...(defaults.logs as string[]), ...(options.logs ?? [])];
    merged['spareLogs'] = defaults.logs.length + (options.spareLogs ?? 0);
  }
  if (Array.isArray(defaults.leaks) && Array.isArray(options.leaks))
    merged['leaks'] = [...(defaults.leaks as string[]), ...(options.leaks as string[])];
  merged['spareProvisions'] = (defaults.provide?.length ?? 0) + (options.spareProvisions ?? 0);
  if (defaults.swap) merged['spareSwaps'] = new Set([...(defaults.spareSwaps ?? []), ...defaults.swap]);
  return merged;
}
