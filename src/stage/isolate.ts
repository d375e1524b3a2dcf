import { calledFrom, locateAt } from '../core/errors';
import { refuse } from './errors';
import { isSlip, nearest } from '../core/near';
import { shared } from '../core/shared';
import { isSpy } from '../core/spy';
import type { Adapter } from './adapter';
import { makeSubject } from './make-subject';
import { printProps } from './outline';
import { placeSwaps, type PlacedSwaps } from '../seam/place';
import { isThunk, moduleOf } from '../seam/thunk';
import { loadSubject } from './load-subject';
import { checkOptions, mergeOptions, type AllOptions } from './options';
import { Stage, stages } from './stage';
import { StubSet } from './stubs';
import type { Subject } from './subject';

/** Puts one component alone on a stage: the same steps in the same order in every framework. */
export async function isolateOn(
  adapter: Adapter,
  given: unknown,
  options: AllOptions,
  calledAt: Error,
): Promise<Subject> {
  checkOptions(options, adapter.options, 'isolate()', calledAt);
  checkListed(adapter, options, calledAt);
  if (typeof document === 'undefined')
    refuse('SIM-NO-PAGE', { runner: 'a simulated one such as jsdom' }, { calledAt });
  await adapter.prepare();
  const swaps = placeSwaps(options.swap ?? [], options.spareSwaps ?? new Set());
  try {
    const component = await loadSubject(adapter, given, calledAt);
    const name = checkComponent(adapter, component, calledAt);
    await swaps.ready();
    const module = isThunk(given) ? moduleOf(given).id() : undefined;
    swaps.refuseTaken(module, calledAt);
    const stage = await raise(adapter, { component, name, options, swaps }, calledAt);
    stage.sandbox.checks.push(() => swaps.refuseUnused(module, calledAt));
    return makeSubject(stage, options);
  } catch (failure) {
    swaps.takeAway();
    throw failure;
  }
}

interface Raising {
  readonly component: unknown;
  readonly name: string;
  readonly options: AllOptions;
  readonly swaps: PlacedSwaps;
}

async function raise(
  adapter: Adapter,
  { component, name, options, swaps }: Raising,
  calledAt: Error,
): Promise<Stage> {
  adapter.refuseProps?.(component, name, options.props ?? {}, calledAt);
  const depth = options.depth === undefined || options.depth === 'full' ? Infinity : options.depth;
  const stubs = new StubSet(options.stub ?? [], options.keep ?? [], depth, adapter.nameOf, adapter.unwrap);
  const routes = (options.network ?? {}) as Record<string, unknown>;
  const stage = new Stage({ adapter, name, stubs, routes, swaps });
  shareRest(stage);
  try {
    await mount(stage, component, options);
    refuseSlips(stage, calledAt);
  } catch (failure) {
    // Half a stage helps nobody: what was put in place is taken down before the test is told.
    stage.sandbox.explained = true;
    await stage.sandbox.takeDown();
    throw locateAt(failure, calledAt);
  }
  stage.sandbox.checks.push(() => refuseUnusedStubs(stage));
  return stage;
}

/** An `isolate` with options already in it. */
export function isolateOnWith(
  adapter: Adapter,
  defaults: AllOptions,
): (component: unknown, options?: AllOptions) => Promise<Subject> {
  const isolated = (component: unknown, options: AllOptions = {}) =>
    isolateOn(adapter, component, mergeOptions(defaults, options), calledFrom('isolate', isolated));
  return isolated;
}

// A spy that was given no name of its own is called by what it was given for.
function nameSpies(props: object): void {
  for (const [key, value] of Object.entries(props)) {
    if (isSpy(value) && value.name === 'spy')
      Object.defineProperty(value, 'name', { value: key, configurable: true });
  }
}

async function mount(stage: Stage, component: unknown, options: AllOptions): Promise<void> {
  const { adapter, name, stubs } = stage.setting;
  nameSpies(options.props ?? {});
  stage.chronicle.add('mounted', name, { detail: printProps(options.props ?? {}), trigger: true });
  const mounted = adapter.mount({
    component,
    name,
    stubs,
    props: options.props ?? {},
    slots: options.slots ?? {},
    options: options as Record<string, unknown>,
    provide: options.provide ?? [],
    wrap: options.wrap ?? [],
    container: stage.container,
    chronicle: stage.chronicle,
    onRendered: stage.onRendered,
    onThrown: stage.onThrown,
    onListenerThrew: stage.onListenerThrew,
    onTold: stage.onTold,
  });
  stage.mounted = mounted;
  await stage.watched(mounted.start());
  await stage.atRest();
}

// Whoever releases a held answer, or lets time pass, waits for every live subject.
function shareRest(stage: Stage): void {
  stages.add(stage);
  stage.sandbox.onTakeDown(() => stages.delete(stage));
  shared.rest = async () => {
    for (const live of [...stages]) await live.atRest();
  };
}

function checkComponent(adapter: Adapter, component: unknown, calledAt: Error): string {
  const name = adapter.nameOf(component);
  if (name !== undefined && (adapter.isSubject?.(component) ?? true)) return name;
  const exports =
    typeof component === 'object' && component !== null
      ? Object.keys(component).filter(
          (key) => adapter.nameOf((component as Record<string, unknown>)[key]) !== undefined,
        )
      : [];
  return refuse(
    'SIM-COMPONENT-MISSING',
    { value: component, framework: adapter.framework, exports },
    { calledAt },
  );
}

function checkListed(adapter: Adapter, options: AllOptions, calledAt: Error): void {
  for (const option of ['stub', 'keep'] as const) {
    for (const one of options[option] ?? []) {
      const target = typeof one === 'object' && one !== null && 'target' in one ? one.target : one;
      if (typeof target === 'string' || adapter.nameOf(target) !== undefined) continue;
      const wanted = `components or their names; one of them is ${target === undefined ? 'undefined: check its import' : 'neither'}`;
      refuse('SIM-OPTION-VALUE', { option, value: target, wanted }, { calledAt });
    }
  }
}

// A name that is a letter off would stay unused without a word until the end of the test.
function refuseSlips(stage: Stage, calledAt: Error): void {
  const rendered = stage.setting.stubs.renderedNames;
  for (const { target, used, name } of stage.setting.stubs.records) {
    const slip =
      typeof target === 'string' && !used ? rendered.find((other) => isSlip(name, other)) : undefined;
    if (slip)
      refuse(
        'SIM-STUB-NAME',
        { subject: stage.setting.name, stub: name, nearest: slip, rendered },
        { calledAt },
      );
  }
}

function refuseUnusedStubs(stage: Stage): void {
  const rendered = stage.setting.stubs.renderedNames;
  for (const { name, used, listed } of stage.setting.stubs.records) {
    if (used || !listed) continue;
    const twin = rendered.includes(name);
    refuse(
      'SIM-STUB-UNUSED',
      {
        subject: stage.setting.name,
        stub: name,
        rendered,
        nearest: twin ? undefined : nearest(name, rendered),
        twin,
      },
      { chronicle: stage.chronicle },
    );
  }
}
