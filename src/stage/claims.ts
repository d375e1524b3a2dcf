import type { Environment } from '../core/environment';
import { once, shared } from '../core/shared';
import { subjectMark } from '../page/locators';

/**
 * Whose the children of the body are: subjects put things (dialogs, tooltips) elsewhere on the page. Null
 * stands for the test, which had it there before the first subject came.
 */
const claims = once('claims', () => new WeakMap<Element, Environment | null>());

/** Tells whether a subject has put an element on the page; undefined where the framework does not know. */
export type Owns = (element: Element) => boolean | undefined;
const owners = once('owners', () => new Map<Environment, Owns>());

/** Begins to tell what a subject puts on the page. */
export function claimFor(environment: Environment, owns: Owns): void {
  // What is there when no other subject is belongs to the test.
  if (shared.environments.size === 1)
    for (let at = document.body.firstElementChild; at; at = at.nextElementSibling) claims.set(at, null);
  owners.set(environment, owns);
  environment.sandbox.onTakeDown(() => owners.delete(environment));
}

/** True for a child of the body that a subject has put there. */
export function isClaimed(environment: Environment, element: Element): boolean {
  const known = claims.get(element);
  if (known !== undefined) return known === environment;
  if (element.hasAttribute(subjectMark)) return false;
  const owner = ownerOf(element) ?? environment;
  claims.set(element, owner);
  return owner === environment;
}

function ownerOf(element: Element): Environment | undefined {
  if (owners.size < 2) return undefined;
  for (const [environment, owns] of owners) if (owns(element)) return environment;
  return shared.current;
}
