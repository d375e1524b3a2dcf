import * as core from '@angular/core';
import type { AnyFunction } from '../core/spy';
import type { Instance, TreeNode } from '../stage/adapter';
import { readDom } from '../stage/read-dom';
import { nameOfRendered, type Rendered } from './surroundings';
import { directiveOf, type Definition } from './definitions';

/** The components that are on the page, by their elements. */
type Elements = ReadonlyMap<Element, Rendered>;

/** What a node shows, with the components in it. */
export const readNode = (node: Node, elements: Elements): TreeNode[] =>
  readDom(node, (drawn) => {
    const rendered = elements.get(drawn.element);
    if (!rendered) return drawn;
    return {
      kind: 'component',
      name: nameOfRendered(rendered),
      stub: rendered.record !== undefined,
      props: inputsOf(rendered),
      children: [drawn],
    };
  });

/** The inputs of a component as they are now, those that have a value. */
function inputsOf({ instance, definition }: Rendered): Record<string, unknown> {
  const entries = Object.entries(definition.inputs).map(([name, [field]]) => [
    name,
    valueOf(instance, field),
  ]);
  return Object.fromEntries(entries.filter(([, value]) => value !== undefined)) as Record<string, unknown>;
}

// A required input that was never given throws when it is read, and an accessor is code of the component's own.
function valueOf(instance: object, name: string): unknown {
  if (!isField(instance, name)) return undefined;
  const field = (instance as Record<string, unknown>)[name];
  if (!core.isSignal(field)) return field;
  try {
    return core.untracked(field);
  } catch {
    return undefined;
  }
}

function isField(instance: object, name: string): boolean {
  for (let at: object | null = instance; at; at = Object.getPrototypeOf(at) as object | null) {
    const found = Object.getOwnPropertyDescriptor(at, name);
    if (found) return 'value' in found;
  }
  return true;
}

/** What a component's parent listens to, by name. */
function heardBy(instance: object, { outputs }: Definition): Record<string, AnyFunction> {
  return Object.fromEntries(
    Object.entries(outputs).flatMap(([name, field]) => {
      const output = (instance as Record<string, { emit?: AnyFunction; set?: AnyFunction }>)[field];
      const tell = output?.emit ?? output?.set;
      return tell ? [[name, (value: unknown) => tell.call(output, value) as unknown] as const] : [];
    }),
  );
}

/** Every instance of a component (by itself or by name) in an element, in page order. */
export function readInstances(
  within: Element,
  elements: Elements,
  fits: (component: unknown) => boolean,
): Instance[] {
  const components = [...elements.values()]
    .filter(
      ({ definition, record, element }) =>
        !record && within !== element && within.contains(element) && fits(definition.type),
    )
    .sort((a, b) => (a.element.compareDocumentPosition(b.element) & 4 ? -1 : 1))
    .map((rendered) => ({
      props: inputsOf(rendered),
      element: rendered.element,
      heard: heardBy(rendered.instance, rendered.definition),
    }));
  return components.length > 0 ? components : readDirectives(within, fits);
}

// Angular keeps no list of them: each element is asked.
function readDirectives(within: Element, fits: (component: unknown) => boolean): Instance[] {
  return [...within.querySelectorAll('*')].flatMap((element) =>
    directivesOn(element).flatMap((instance) => {
      const definition = directiveOf(instance.constructor);
      if (!definition || !fits(instance.constructor)) return [];
      const rendered = { element, instance, definition, record: undefined };
      return [{ props: inputsOf(rendered), element, heard: heardBy(instance, definition) }];
    }),
  );
}

function directivesOn(element: Element): object[] {
  try {
    return core.ɵgetDirectives(element) as object[];
  } catch {
    // An element that Angular has not made.
    return [];
  }
}
