import { Environment } from '../core/environment';
import { directed } from '../core/director';
import { calledFrom } from '../core/errors/called-from';
import { isSlip, nearest } from '../core/near';
import type { Occasion } from '../core/sandbox';
import { shared } from '../core/shared';
import { isPromise } from '../core/is-promise';
import { isSpy } from '../core/spy';
import { makeStep } from '../core/step';
import { prepareRoutes } from '../network/prepare';
import { placeSwaps } from '../seam/place';
import { isThunk, moduleOf } from '../seam/thunk';
import type { Adapter } from './adapter';
import { watchAccess } from './accessible';
import { enterSurroundings, guard, putUp } from './beginning';
import { refuseProps, refuseSlots } from './declared';
import { explain, refuse } from './errors';
import { installOnce } from './install';
import { loadSubject } from './load-subject';
import { makeSubject } from './make-subject';
import { checkOptions, mergeOptions, type AllOptions } from './options';
import { printProps } from './outline';
import { complainOfUnread, readOptions, type ReadOptions } from './plan';
import { Stage } from './stage';
import { isState, type StateData } from './state';
import { isStub } from './stubs';
import type { Subject } from './subject';

/** A subject that is being put on the stage. */
interface Call {
  readonly environment: Environment;
  readonly adapter: Adapter;
  /** The component, or how to load it. */
  readonly given: unknown;
  readonly options: AllOptions;
  readonly calledAt: Error;
}

/**
 * Puts one component alone on a stage: the same steps in the same order in every framework.
 *
 * @param what a component, how to load it, or a declared state of one
 */
export function isolateOn(
  adapter: Adapter,
  what: unknown,
  more: AllOptions,
  calledAt: Error,
): Promise<Subject> {
  const state = isState(what) ? what : undefined;
  const given = state ? state.component : what;
  const options = state ? mergeOptions(state.options, more) : more;
  // The environment exists at once, so a test that ends before its subject is up still takes it down.
  const environment = new Environment(adapter.nameOf(given) ?? 'the subject');
  const call = { environment, adapter, given, options, calledAt };
  const work = state?.after.length ? () => setUpAs(state, call) : () => setUp(call);
  const name = `isolate(${environment.name})`;
  return makeStep(
    'isolate',
    calledAt,
    directed(name, () => putUp(environment, calledAt, work)),
  );
}

/** Goes on to a declared state. */
async function setUpAs({ after }: StateData, call: Call): Promise<Subject> {
  const subject = await setUp(call);
  for (const work of after) await work(subject);
  return subject;
}

// Await only what is not ready yet: each await costs a turn.
async function setUp({ environment, adapter, given, options, calledAt }: Call): Promise<Subject> {
  const { sandbox } = environment;
  checkOptions(options, adapter.options, 'isolate()', calledAt);
  checkListed(adapter, options, calledAt);
  adapter.refuseOptions?.(options, calledAt);
  if (typeof document === 'undefined')
    refuse('SIM-NO-PAGE', { runner: 'a simulated one such as jsdom' }, { calledAt });
  installOnce();
  // Await even if everything is ready: subjects that are isolated together must know of each other before any
  // of their code runs, so that their promises are tracked from the start.
  environment.isPreparing = true;
  await adapter.prepare();
  environment.isPreparing = false;
  const swaps = placeSwaps(options.swap ?? [], options.spareSwaps ?? new Set());
  sandbox.onTakeDown(() => swaps.takeAway());
  const entering = enterSurroundings(environment, options, calledAt);
  if (entering) await entering;
  const loading = loadSubject(adapter, given, calledAt);
  const component = isPromise(loading) ? await loading : loading;
  const name = checkComponent(adapter, component, calledAt);
  const module = isThunk(given) ? moduleOf(given).id() : undefined;
  refuseProps({ adapter, component, name, calledAt }, options.props ?? {});
  refuseSlots({ adapter, component, name, calledAt }, options.slots ?? {});
  const read = readOptions(adapter, options);
  const preparing = prepareRoutes(read.routes);
  if (preparing) await preparing;
  refuseClosed(environment, calledAt);
  const stage = new Stage(environment, { adapter, name, stubs: read.stubs, routes: read.routes, swaps });
  // What a former swap has kept from loading may ask for something while it loads.
  const bringing = swaps.ready();
  if (bringing) await bringing;
  swaps.refuseTaken(module, component, calledAt);
  options.onStage?.(stage, read);
  // While a draft is tried, each subject of it is looked at.
  (shared.singletons['onStage'] as ((stage: Stage) => void) | undefined)?.(stage);
  guard(stage, options, calledAt);
  if (options.accessible) stage.checkState = watchAccess(stage, options.accessible);
  sandbox.checks.push((occasion) => complainOfStubs(stage, occasion));
  sandbox.checks.push((occasion) =>
    occasion === 'unmounted' ? undefined : swaps.complainOfUnused(module, calledAt),
  );
  sandbox.checks.push((occasion) => (occasion === 'end' ? undefined : complainOfMissed(stage)));
  await mount(stage, component, read);
  refuseSlips(stage, calledAt);
  sandbox.checks.push((occasion) =>
    occasion === 'end' ? complainOfUnread(name, read, adapter.nameOfToken) : undefined,
  );
  return makeSubject(stage, component, read);
}

// The test has ended in the meantime. Nothing may be mounted in the next test.
function refuseClosed({ state, name }: Environment, calledAt: Error): void {
  if (state !== 'up') refuse('SIM-SUBJECT-GONE', { subject: name, asked: 'isolate()' }, { calledAt });
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

// A spy without a name gets the name of the prop it is passed as.
function nameSpies(props: object): void {
  for (const key of Object.keys(props)) {
    const { value } = Object.getOwnPropertyDescriptor(props, key)!;
    if (isSpy(value) && value.name === 'spy')
      Object.defineProperty(value, 'name', { value: key, configurable: true });
  }
}

function mount(stage: Stage, component: unknown, options: ReadOptions): Promise<void> {
  const { adapter, name } = stage.setting;
  const { environment, chronicle, container } = stage;
  nameSpies(options.props);
  chronicle.add('mounted', name, { detail: () => printProps(options.props), trigger: true });
  return stage.act('rendered the subject', () => {
    const { props, slots, stubs, provide, wrap, routes, given } = options;
    // Field by field, because spreading is slow here.
    stage.mounted = adapter.mount({
      props,
      slots,
      stubs,
      provide,
      wrap,
      routes,
      given,
      component,
      name,
      environment,
      container,
      chronicle,
      onRendered: stage.onRendered,
      onThrown: stage.onThrown,
      onListenerThrew: stage.onListenerThrew,
      onTold: stage.onTold,
    });
    return stage.watched(stage.mounted.start());
  });
}

/** The name of a component. @throws SIM-COMPONENT-MISSING for what is none */
export function checkComponent(adapter: Adapter, component: unknown, calledAt: Error): string {
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
    {
      ...{ value: component, framework: adapter.framework, exports },
      elementOf: adapter.madeOf(component),
      why: typeof component === 'string' ? 'That is a name.' : adapter.whyNone?.(component),
    },
    { calledAt },
  );
}

function checkListed(adapter: Adapter, options: AllOptions, calledAt: Error): void {
  for (const option of ['stub', 'keep'] as const) {
    for (const one of options[option] ?? []) {
      const target = isStub(one) ? one.target : one;
      if (typeof target === 'string' || adapter.nameOf(target) !== undefined) continue;
      const element = adapter.madeOf(target);
      const found = element
        ? `an element: write   ${option}: [${element}]`
        : target === undefined
          ? 'undefined: check its import'
          : 'neither';
      const wanted = `components or their names; one of them is ${found}`;
      refuse('SIM-OPTION-VALUE', { option, value: target, wanted }, { calledAt });
    }
  }
}

// A misspelt name would otherwise stay unnoticed until the end of the test.
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

const complainOfMissed = ({ setting }: Stage): Error | undefined =>
  setting.stubs.records.map((record) => record.complainOfMissed()).find(Boolean);

function complainOfStubs(stage: Stage, occasion: Occasion): Error | undefined {
  // A subject that failed may not have reached its children.
  if (occasion === 'unmounted') return undefined;
  const rendered = stage.setting.stubs.renderedNames;
  for (const { name, used, listed } of stage.setting.stubs.records) {
    if (used || !listed) continue;
    const twin = rendered.includes(name);
    const fields = {
      subject: stage.setting.name,
      stub: name,
      rendered,
      nearest: twin ? undefined : nearest(name, rendered),
      twin,
    };
    return explain('SIM-STUB-UNUSED', fields, { chronicle: stage.chronicle });
  }
  return undefined;
}
