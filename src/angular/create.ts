import * as core from '@angular/core';
import type { Plan } from '../stage/adapter';
import { app } from './application';
import { componentOf, type Definition } from './definitions';
import { wrappingComponents } from './injector';
import type { Scope } from './scope';
import { fillSlots } from './slots';

type Ref = core.ComponentRef<object>;

/**
 * Makes a subject inside of its wrappers, and puts it on the page. Whatever was made is in `all`,
 * innermost first, also where the making of the next one failed.
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
  // From the outside in: what a wrapper provides is there for what is inside of it.
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

/** An element that fits the selector of a component. */
function elementFor({ selectors }: Definition, document: Document): Element {
  const [tag, ...attributes] = (selectors[0] ?? []) as string[];
  const element = document.createElement(tag || 'div');
  for (let at = 0; at + 1 < attributes.length; at += 2)
    element.setAttribute(attributes[at]!, attributes[at + 1]!);
  return element;
}
