import { nearest } from '../core/near';
import { print } from '../core/print';
import { isLocator, type Locator } from '../page/locators';
import type { Adapter } from '../stage/adapter';
import { checkComponent } from '../stage/isolate';
import { fileNameIn, looksLikeThunk, specifierIn } from '../seam/thunk';
import { checkOptions, mergeOptions, type AllOptions } from '../stage/options';
import type { Check, StateData } from '../stage/state';
import type { Subject } from '../stage/subject';
import { refuse } from './errors';
import { keepStates } from './sets';

/** What a state declares, beside the options of `isolate`. `S` is the subject, `K` the names of the states. */
export interface Declared<S, K extends string = string> {
  /** What is on the page, once or more. */
  readonly shows?: readonly Locator[];
  /** What is not on the page. */
  readonly lacks?: readonly Locator[];
  /** What is on the page just so often: `[[part(HiveCard), 3]]`. */
  readonly counts?: readonly (readonly [locator: Locator, times: number])[];
  /** The state that this one builds on: its options, and what is done to get there. What it shows is left behind. */
  readonly from?: NoInfer<K>;
  /** What is done to get there: `(board) => board.click(role('button', 'Try again'))`. */
  readonly after?: (subject: S) => unknown;
  /** Other states that look the same, and are meant to. */
  readonly looksLike?: readonly NoInfer<K>[];
  /** True for a state that must come about in every order in which its answers can arrive. */
  readonly everyArrival?: boolean;
}

const own = ['shows', 'lacks', 'counts', 'from', 'after', 'looksLike', 'everyArrival'] as const;
type Given = AllOptions & Declared<Subject>;

/** A declared state: `isolate(board.failed)` begins with it. `S` is the subject it becomes. */
export interface State<S = Subject> {
  readonly simulacra: 'state';
  readonly name: string;
  /** The name of the component. */
  readonly of: string;
  /** What it becomes; only the compiler knows of it. */
  readonly subject?: S;
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- of whatever component
export type AnyState = State<any>;

/** What `isolate` resolves to: what a declared state becomes, or the subject that a component does. */
export type Isolated<C, S> = 0 extends 1 & C ? S : [C] extends [never] ? S : C extends State<infer T> ? T : S;

/** The declared states of a component, by name. */
export type States<K extends string = string, S = Subject> = { readonly [name in K]: State<S> };

/**
 * Reads the declared states of a component. Nothing is rendered.
 *
 * @throws SIM-COMPONENT-MISSING, SIM-OPTION-UNKNOWN, SIM-OPTION-VALUE, SIM-STATE-NONE, SIM-STATE-CHECK,
 * SIM-STATE-UNKNOWN, SIM-STATE-CIRCLE
 */
export function declareStates(
  adapter: Adapter,
  component: unknown,
  common: AllOptions,
  declared: Readonly<Record<string, Given>>,
  declaredAt: Error,
): States {
  const of = looksLikeThunk(component)
    ? fileNameIn(specifierIn(component))
    : checkComponent(adapter, component, declaredAt);
  checkOptions(common, adapter.options, 'states()', declaredAt);
  const names = Object.keys(declared);
  const read = new Map<string, StateData>();
  const readState = (name: string, trail: readonly string[]): StateData => {
    const known = read.get(name);
    if (known) return known;
    if (trail.includes(name))
      refuse('SIM-STATE-CIRCLE', { component: of, states: [...trail.slice(trail.indexOf(name)), name] }, at);
    const given = declared[name]!;
    checkDeclared(given, { component: of, state: name, names, adapter, declaredAt });
    const { options, checks } = splitState(given);
    const base = given.from === undefined ? undefined : readState(given.from, [...trail, name]);
    const { after, looksLike = [], everyArrival = false } = given;
    const state: StateData = {
      ...{ simulacra: 'state', name, of, component, checks, looksLike, everyArrival, declaredAt },
      options: mergeOptions(base?.options ?? common, options),
      after: [...(base?.after ?? []), ...(after ? [after] : [])],
    };
    read.set(name, state);
    return state;
  };
  const at = { calledAt: declaredAt };
  const states = names.map((name) => readState(name, []));
  const made = Object.fromEntries(states.map((state) => [state.name, state]));
  keepStates(made, { component: of, adapter, declaredAt, states });
  return made as States;
}

function splitState(given: Given): { options: AllOptions; checks: readonly Check[] } {
  const options = Object.fromEntries(
    Object.entries(given).filter(([key]) => !(own as readonly string[]).includes(key)),
  ) as AllOptions;
  const { shows = [], lacks = [], counts = [] } = given;
  const checks = [
    ...shows.map((locator) => ({ locator, times: undefined })),
    ...counts.map(([locator, times]) => ({ locator, times })),
    ...lacks.map((locator) => ({ locator, times: 0 })),
  ];
  return { options, checks };
}

interface About {
  readonly component: string;
  readonly state: string;
  readonly names: readonly string[];
  readonly adapter: Adapter;
  readonly declaredAt: Error;
}

function checkDeclared(given: unknown, { component, state, names, adapter, declaredAt }: About): void {
  const at = { calledAt: declaredAt };
  const wrong = (option: string, value: unknown) =>
    refuse('SIM-STATE-CHECK', { component, state, option, given: print(value, 40) }, at);
  if (typeof given !== 'object' || given === null || Array.isArray(given)) wrong('shows', given);
  const { shows, lacks, counts, from, after, looksLike, everyArrival, ...rest } = given as Given;
  checkOptions(rest, [...adapter.options, ...own], `the state "${state}"`, declaredAt);
  for (const [option, list] of Object.entries({ shows, lacks })) {
    if (list === undefined) continue;
    if (!Array.isArray(list)) wrong(option, list);
    for (const one of list as unknown[]) if (!isLocator(one)) wrong(option, one);
  }
  if (counts !== undefined && !Array.isArray(counts)) wrong('counts', counts);
  for (const pair of (counts ?? []) as unknown[])
    if (!Array.isArray(pair) || !isLocator(pair[0]) || !(Number.isInteger(pair[1]) && pair[1] >= 0))
      wrong('counts', pair);
  if (after !== undefined && typeof after !== 'function') wrong('after', after);
  if (looksLike !== undefined && !Array.isArray(looksLike)) wrong('looksLike', looksLike);
  if (everyArrival !== undefined && typeof everyArrival !== 'boolean') wrong('everyArrival', everyArrival);
  for (const [option, named] of [
    ...(from === undefined ? [] : [['from', from] as const]),
    ...(looksLike ?? []).map((name) => ['looksLike', name] as const),
  ]) {
    if (names.includes(named)) continue;
    const fields = { component, state, option, named, states: names, nearest: nearest(named, names) };
    refuse('SIM-STATE-UNKNOWN', fields, at);
  }
  if ((shows ?? []).length + (lacks ?? []).length + (counts ?? []).length === 0)
    refuse('SIM-STATE-NONE', { component, state }, at);
}
