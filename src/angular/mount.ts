import * as core from '@angular/core';
import { explain, refuse } from '../core/errors';
import { nearest } from '../core/near';
import type { AnyFunction } from '../core/spy';
import type { Mounted, Plan } from '../stage/adapter';
import { app, destroyInjector, live, settle, type Live } from './application';
import { broughtBy, componentOf, list, selectorOf, type Class, type Definition } from './definitions';
import { makeInjector, startRouter, wrappingComponents } from './injector';
import { fillSlots } from './slots';
import { Scope, type Rendered } from './scope';
import { wordThrown } from './thrown';
import { readInstances, readNode } from './tree';

type Ref = core.ComponentRef<object>;
type Values = Record<string, unknown>;

let attributedTo: Element | undefined;

/** The subject whose code runs now, as far as it is known. */
export const isRunning = (container: Element): boolean => attributedTo === container;

/** Creates a subject as Angular does, in an injector of its own in an application that is shared. */
export function mount(plan: Plan): Mounted {
  const { container, component } = plan;
  const definition = componentOf(component)!;
  const elements = new Map<Element, Rendered>();
  const askers = new WeakMap<object, string>();
  const told: Record<string, unknown[][]> = Object.fromEntries(
    outputsOf(definition).map((name) => [name, []]),
  );
  let made: Made | undefined;

  const attributed = <T>(work: () => T): T => {
    const before = attributedTo;
    attributedTo = container;
    try {
      return work();
    } finally {
      attributedTo = before;
    }
  };
  const fail = (error: unknown) => {
    // What threw once throws each time it is rendered.
    if (made) app().ref.detachView(made.ref.hostView);
    plan.onThrown(
      wordThrown(error, {
        plan,
        askerOf: (thrown) => askers.get(thrown as object),
        namesAround: (name) => namesAround(name, elements),
        inputsOf: (tag) => inputNamesOf(tag, definition),
        selectors: list(definition.directiveDefs).map(selectorOf),
      }),
    );
  };
  const scope = new Scope({
    subject: component,
    stubs: plan.stubs,
    provided: new Map(plan.provide),
    onCreated: (rendered) => elements.set(rendered.element, rendered),
    onFailed: (error, asker) => {
      if (typeof error === 'object' && error !== null && !askers.has(error)) askers.set(error, asker);
    },
  });
  const injector = makeInjector(plan, { handleError: (error: unknown) => report(error) }, scope, attributed);
  const report = (error: unknown) =>
    Math.abs((error as { code?: number } | null)?.code ?? 0) === 201
      ? fail(error)
      : plan.onListenerThrew(error);
  const stage: Live = {
    container,
    check: () => made?.ref.changeDetectorRef.detectChanges(),
    onRendered: () => plan.onRendered(false),
    onThrown: fail,
  };
  return {
    async start() {
      live.add(stage);
      try {
        await settle(() =>
          attributed(() => {
            made = create(plan, scope, injector);
            listen(made.ref, plan, definition, told);
            assign(made, plan.props as Values, definition);
            made.ref.changeDetectorRef.detectChanges();
            app().ref.attachView(made.ref.hostView);
          }),
        );
        await startRouter(plan, injector);
      } catch (error) {
        fail(error);
      }
    },
    outputs: () => told,
    update(next) {
      if (made) assign(made, next as Values, definition);
    },
    async unmount() {
      live.delete(stage);
      await settle(() => {
        for (const ref of made?.all ?? []) ref.destroy();
        destroyInjector(injector);
      });
    },
    tree: () =>
      (made && readNode(made.ref.location.nativeElement as Element, elements)[0]) ?? {
        kind: 'component',
        name: plan.name,
        stub: false,
        props: {},
        children: [],
      },
    instancesOf: (wanted) => readInstances(container, elements, wanted),
  };
}

interface Made {
  readonly ref: Ref;
  /** The subject and what is around it, innermost first. */
  readonly all: readonly Ref[];
  readonly stops: (() => void)[];
}

function create(plan: Plan, scope: Scope, environmentInjector: core.EnvironmentInjector): Made {
  const wrappers = wrappingComponents(plan);
  const definition = componentOf(plan.component)!;
  const copy = { ɵcmp: scope.component(definition, 1) } as unknown as core.Type<object>;
  const projectableNodes = fillSlots(plan.slots, definition, environmentInjector);
  if (wrappers.length === 0) {
    const ref = core.createComponent(copy, { environmentInjector, projectableNodes });
    plan.container.append(ref.location.nativeElement as Element);
    return { ref, all: [ref], stops: [] };
  }
  // From the outside in: what a wrapper provides is there for what is inside of it.
  const all: Ref[] = [];
  let elementInjector: core.Injector | undefined;
  let hostElement = elementFor(componentOf(wrappers[0]![0])!, plan.container.ownerDocument);
  plan.container.append(hostElement);
  for (const [at, [wrapper, inputs]] of wrappers.entries()) {
    const next = wrappers[at + 1];
    const inner = elementFor(next ? componentOf(next[0])! : definition, plan.container.ownerDocument);
    const slots = (componentOf(wrapper)!.ngContentSelectors ?? ['*']).map((slot) =>
      slot === '*' ? [inner] : [],
    );
    const ref = core.createComponent(wrapper as core.Type<object>, {
      environmentInjector,
      hostElement,
      projectableNodes: slots,
      ...(elementInjector && { elementInjector }),
    });
    for (const [name, value] of Object.entries(inputs ?? {})) ref.setInput(name, value);
    ref.changeDetectorRef.detectChanges();
    app().ref.attachView(ref.hostView);
    all.unshift(ref);
    elementInjector = ref.injector;
    hostElement = inner;
  }
  const ref = core.createComponent(copy, {
    environmentInjector,
    projectableNodes,
    hostElement,
    elementInjector: elementInjector!,
  });
  return { ref, all: [ref, ...all], stops: [] };
}

/** An element that fits the selector of a component. */
function elementFor({ selectors }: Definition, document: Document): Element {
  const [tag, ...attributes] = (selectors[0] ?? []) as string[];
  const element = document.createElement(tag || 'div');
  for (let at = 0; at + 1 < attributes.length; at += 2)
    element.setAttribute(attributes[at]!, attributes[at + 1]!);
  return element;
}

const outputsOf = (definition: Definition) => [
  ...Object.keys(definition.outputs),
  ...broughtBy(definition).outputs,
];

/** Writes down what the subject tells, and passes it to the functions a test gave. */
function listen(
  { instance }: Ref,
  plan: Plan,
  { outputs }: Definition,
  told: Record<string, unknown[][]>,
): void {
  const given = plan.props as Values;
  for (const [name, field] of Object.entries(outputs)) {
    const output = (instance as Values)[field] as Told | undefined;
    const tell = (value: unknown) => {
      told[name]!.push([value]);
      plan.onTold(name, [value]);
    };
    if (output?.emit) watchEmits(output, tell);
    else output?.subscribe(tell);
    if (typeof given[name] === 'function') output?.subscribe(given[name] as AnyFunction);
  }
}

interface Told {
  subscribe(listener: AnyFunction): unknown;
  emit?: AnyFunction;
  next?: AnyFunction;
}

// To listen would be seen: a component may ask whether anybody does.
function watchEmits(output: Told, tell: (value: unknown) => void): void {
  for (const way of ['emit', 'next'] as const) {
    const original = output[way];
    if (!original) continue;
    output[way] = (...args: unknown[]) => {
      tell(args[0]);
      return original.apply(output, args) as unknown;
    };
  }
}

function assign(made: Made, values: Values, definition: Definition): void {
  for (const [name, value] of Object.entries(values)) {
    if (typeof value === 'function' && name in definition.outputs && !core.isSignal(value)) continue;
    const isModel = `${name}Change` in definition.outputs;
    if (isModel && core.isSignal(value))
      bindBothWays(made.ref, name, value as core.WritableSignal<unknown>, definition);
    else made.ref.setInput(name, value);
  }
}

/** A signal that is given to a model is written back to, as `[(name)]` does. */
function bindBothWays(
  ref: Ref,
  name: string,
  value: core.WritableSignal<unknown>,
  { outputs }: Definition,
): void {
  const model = (ref.instance as Values)[outputs[`${name}Change`]!] as Told;
  ref.setInput(name, core.untracked(value));
  core.effect(() => ref.setInput(name, value()), { injector: ref.injector });
  model.subscribe((next: unknown) => value.set(next));
}

/** @throws SIM-PROP-UNKNOWN, SIM-PROP-MISSING */
export function refuseProps(component: unknown, subject: string, props: object, calledAt: Error): void {
  const definition = componentOf(component)!;
  const brought = broughtBy(definition);
  const inputs = [...Object.keys(definition.inputs), ...brought.inputs];
  const known = [...inputs, ...outputsOf(definition)];
  const given = Object.keys(props);
  const unknown = given.find((name) => !known.includes(name));
  if (unknown !== undefined) {
    const near = nearest(unknown, known);
    refuse(
      'SIM-PROP-UNKNOWN',
      { subject, asked: unknown, known, word: 'input', nearest: near },
      { calledAt },
    );
  }
  const missing = requiredIn(component as Class).filter(
    (name) => inputs.includes(name) && !given.includes(name),
  );
  if (missing.length > 0)
    throw explain('SIM-PROP-MISSING', { subject, missing, given, word: 'input' }, { calledAt });
}

// Only the decorators of a class that is compiled as it goes tell what is required.
function requiredIn(type: Class): string[] {
  const { __prop__metadata__: fields = {} } = type as unknown as {
    __prop__metadata__?: Record<string, { required?: boolean; alias?: string }[]>;
  };
  return Object.entries(fields).flatMap(([name, all]) =>
    all.flatMap(({ required, alias }) => (required ? [alias ?? name] : [])),
  );
}

function inputNamesOf(tag: string, definition: Definition): string[] | undefined {
  const found = list(definition.directiveDefs).find(
    (child) => child.template && child.selectors[0]?.[0] === tag,
  );
  return found && [...Object.keys(found.inputs), ...broughtBy(found).inputs];
}

function namesAround(name: string, elements: ReadonlyMap<Element, Rendered>): string[] {
  const own = (rendered: Rendered) =>
    rendered.record?.name ?? rendered.definition.type.name.replace(/^_/, '');
  const last = [...elements.values()].reverse().find((rendered) => own(rendered) === name);
  const names = [name];
  for (let at = last?.element.parentElement; at; at = at.parentElement) {
    const around = elements.get(at);
    if (around) names.push(own(around));
  }
  return names;
}
