import * as core from '@angular/core';
import type { AnyFunction } from '../core/spy';
import type { Instance, TreeNode } from '../stage/adapter';
import { readDom } from '../stage/read-dom';
import { nameOfRendered, type Rendered } from './around';
import { type Definition } from './definitions';

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
    valueOf((instance as Record<string, unknown>)[field]),
  ]);
  return Object.fromEntries(entries.filter(([, value]) => value !== undefined)) as Record<string, unknown>;
}

// A required input that was never given throws when it is read.
function valueOf(field: unknown): unknown {
  if (!core.isSignal(field)) return field;
  try {
    return core.untracked(field);
  } catch {
    return undefined;
  }
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
  return [...elements.values()]
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
}
