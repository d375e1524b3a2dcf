import * as core from '@angular/core';
import type { Plan } from '../stage/adapter';
import { app } from './application';
import { componentOf, type Definition } from './definitions';
import { wrappingComponents } from './injector';
import type { Scope } from './scope';

type Ref = core.ComponentRef<object>;

/**
 * Creates a subject inside its wrappers, and adds it to the page. `all` receives every component that was created,
 * innermost first, even if creating the next one fails.
 */
export function create(
  plan: Plan,
  scope: Scope,
  environmentInjector: core.EnvironmentInjector,
  all: Ref[],
): Ref {
  const definition = componentOf(plan.component)!;
  const copy = { ɵcmp: scope.component(definition, 1) } as unknown as core.Type<object>;
  const projectableNodes = fillSlots(plan.slots, definition, environmentInjector);
  // From the outside in, so that each wrapper's providers exist before its content is created.
  let place: { hostElement?: Element; elementInjector?: core.Injector } = {};
  const wrappers = wrappingComponents(plan);
  for (const [at, [wrapper, inputs]] of wrappers.entries()) {
    const next = componentOf(wrappers[at + 1]?.[0]) ?? definition;
    const inner = elementFor(next, plan.container.ownerDocument);
    const ref = core.createComponent(wrapper as core.Type<object>, {
      environmentInjector,
      projectableNodes: (componentOf(wrapper)!.ngContentSelectors ?? []).map((slot) =>
        slot === '*' ? [inner] : [],
      ),
      ...place,
    });
    all.unshift(ref);
    for (const [name, value] of Object.entries(inputs ?? {})) ref.setInput(name, value);
    if (at === 0) plan.container.append(ref.location.nativeElement as Element);
    ref.changeDetectorRef.detectChanges();
    app().ref.attachView(ref.hostView);
    place = { hostElement: inner, elementInjector: ref.injector };
  }
  const ref = core.createComponent(copy, { environmentInjector, projectableNodes, ...place });
  all.unshift(ref);
  if (wrappers.length === 0) plan.container.append(ref.location.nativeElement as Element);
  return ref;
}

/** Creates an element that matches the selector of a component. */
function elementFor({ selectors }: Definition, document: Document): Element {
  const [tag, ...attributes] = (selectors[0] ?? []) as string[];
  const element = document.createElement(tag || 'div');
  for (let at = 0; at + 1 < attributes.length; at += 2)
    element.setAttribute(attributes[at]!, attributes[at + 1]!);
  return element;
}

/**
 * The nodes for each `<ng-content>` of a subject, by its selector or `default`. A slot is a text, an element, a
 * component, or a list of these.
 */
function fillSlots(
  slots: Readonly<Record<string, unknown>>,
  { ngContentSelectors = [] }: Definition,
  environmentInjector: core.EnvironmentInjector,
): Node[][] {
  return ngContentSelectors.map((selector) => {
    const content = slots[selector === '*' ? 'default' : selector];
    const all = (Array.isArray(content) ? content : content === undefined ? [] : [content]) as unknown[];
    return all.map((one) => nodeOf(one, environmentInjector));
  });
}

function nodeOf(content: unknown, environmentInjector: core.EnvironmentInjector): Node {
  if (componentOf(content)) {
    const ref = core.createComponent(content as core.Type<unknown>, { environmentInjector });
    environmentInjector.get(core.ApplicationRef).attachView(ref.hostView);
    return ref.location.nativeElement as Node;
  }
  return typeof content === 'object' && content !== null
    ? (content as Node)
    : document.createTextNode(String(content));
}
