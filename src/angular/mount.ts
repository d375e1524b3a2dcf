import * as core from '@angular/core';
import type { Mounted, Plan } from '../stage/adapter';
import { printThrown } from '../core/print';
import { bareNode } from '../stage/outline';
import { app, destroyInjector, live, settleAtOnce, type Live } from './application';
import { assign, listen } from './bindings';
import { create } from './create';
import { componentOf, list, outputsOf, selectorOf, type Definition } from './definitions';
import { makeInjector, startRouter } from './injector';
import { inputNamesOf } from './bindings';
import { nameOfRendered, outerOf, viewHere, type Rendered, type View } from './surroundings';
import { Scope } from './scope';
import { wordThrown } from './thrown';
import { readInstances, readNode } from './tree';

type Values = Record<string, unknown>;

let attributedTo: Element | undefined;

/** True while code of a subject runs, as far as it is known: in its template always, elsewhere when it is made. */
export function isRunning(container: Element): boolean {
  if (attributedTo) return attributedTo === container;
  const view = viewHere();
  return view !== null && isWithin(view, container);
}

function isWithin(view: View, container: Element): boolean {
  const [host] = view;
  if (host instanceof Element && container.contains(host)) return true;
  const outer = outerOf(view);
  return outer !== undefined && isWithin(outer, container);
}

/** What each output emits, by its name; and by its field, which is what types know. */
function tellings(definition: Definition): Record<string, unknown[][]> {
  const told = Object.fromEntries(outputsOf(definition).map((name): [string, unknown[][]] => [name, []]));
  for (const [name, field] of Object.entries(definition.outputs))
    if (field !== name) Object.defineProperty(told, field, { value: told[name] });
  return told;
}

/** Creates a subject as Angular does, in an injector of its own in an application that is shared. */
export function mount(plan: Plan): Mounted {
  const { container, component } = plan;
  const definition = componentOf(component)!;
  const elements = new Map<Element, Rendered>();
  const told = tellings(definition);
  const all: core.ComponentRef<object>[] = [];
  let made: core.ComponentRef<object> | undefined;
  const attributed = attributing(container);
  const failures = wordFailures(plan, elements);
  const fail = (error: unknown) => {
    if (isHandled(error)) return;
    // What threw once throws each time it is rendered.
    if (made) app().ref.detachView(made.hostView);
    plan.onThrown(failures.word(error));
  };
  const surroundings = {
    ...{ subject: component, stubs: plan.stubs },
    provided: new Map(plan.provide.map((one) => [one.token, one])),
    onCreated: (rendered: Rendered) => elements.set(rendered.element, rendered),
    namesAbove: (element: Element) => namesAbove(element, elements),
    onFailed: failures.remember,
  };
  const scope = Scope.for(surroundings);
  const handler = { handleError: (error: unknown) => report(error) };
  const injector = makeInjector(plan, handler, { scope, surroundings }, attributed);
  const report = (error: unknown) => (isCoded(error, 201) ? fail(error) : plan.onListenerThrew(error));
  const isHandled = handledBy(
    () => injector.get(core.ErrorHandler),
    handler,
    plan,
    (error) => fail(error),
  );
  const stage: Live = {
    check: () => made?.changeDetectorRef.detectChanges(),
    onRendered: () => plan.onRendered(false),
    onThrown: fail,
  };
  return {
    async start() {
      live.add(stage);
      try {
        await settleAtOnce(() =>
          attributed(() => {
            made = create(plan, scope, injector, all);
            listen(made, plan, definition, told);
            assign(made, plan.props as Values, definition);
            made.changeDetectorRef.detectChanges();
            app().ref.attachView(made.hostView);
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
      await settleAtOnce(() => {
        for (const ref of all) ref.destroy();
        destroyInjector(injector);
      });
    },
    tree: () =>
      (made && readNode(made.location.nativeElement as Element, elements)[0]) ?? bareNode(plan.name),
    instancesOf: (fits) => readInstances(container, elements, fits),
  };
}

// The test's own handler decides, as an application's does; what it throws is what was thrown.
function handledBy(
  own: () => core.ErrorHandler,
  ours: core.ErrorHandler,
  { chronicle, name, provide }: Plan,
  fail: (error: unknown) => void,
): (error: unknown) => boolean {
  let isHandling = false;
  // It is there for what may go wrong, which in most tests nothing does.
  for (const one of provide) if (one.token === core.ErrorHandler) one.used = true;
  return (error) => {
    const decides = own();
    if (decides === ours || isHandling) return false;
    chronicle.add('threw', name, { detail: printThrown(error) });
    isHandling = true;
    try {
      decides.handleError(error);
    } catch (thrown) {
      fail(thrown);
    } finally {
      isHandling = false;
    }
    return true;
  };
}

const isCoded = (error: unknown, code: number) =>
  Math.abs((error as { code?: number } | null)?.code ?? 0) === code;

/** Runs work as the subject's. */
function attributing(container: Element): <T>(work: () => T) => T {
  return (work) => {
    const before = attributedTo;
    attributedTo = container;
    try {
      return work();
    } finally {
      attributedTo = before;
    }
  };
}

/** Words what a subject throws, by who was being made and what is on the page. */
function wordFailures(plan: Plan, elements: ReadonlyMap<Element, Rendered>) {
  const definition = componentOf(plan.component)!;
  const askers = new WeakMap<object, string>();
  return {
    remember(error: unknown, asker: string): void {
      if (typeof error === 'object' && error !== null && !askers.has(error)) askers.set(error, asker);
    },
    word: (error: unknown): Error =>
      wordThrown(error, {
        plan,
        askerOf: (thrown) => askers.get(thrown as object),
        namesAround: (name) => namesAround(name, elements),
        inputsOf: (tag) => inputNamesOf(tag, definition),
        selectors: () => list(definition.directiveDefs).map(selectorOf),
      }),
  };
}

function namesAround(name: string, elements: ReadonlyMap<Element, Rendered>): string[] {
  const last = [...elements.values()].reverse().find((rendered) => nameOfRendered(rendered) === name);
  return [name, ...(last ? namesAbove(last.element, elements) : [])];
}

function namesAbove(element: Element, elements: ReadonlyMap<Element, Rendered>): string[] {
  const names: string[] = [];
  for (let at = element.parentElement; at; at = at.parentElement) {
    const rendered = elements.get(at);
    if (rendered) names.push(nameOfRendered(rendered));
  }
  return names;
}
