import * as core from '@angular/core';
import { componentOf, type Definition } from './definitions';

/**
 * What is put into a subject, for each `<ng-content>` it has: by `default` or by its selector. A text,
 * an element, a list of them, or a component.
 */
export function fillSlots(
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
