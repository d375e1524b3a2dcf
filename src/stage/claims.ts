import type { Environment } from '../core/environment';
import { once, shared } from '../core/shared';
import { subjectMark } from '../page/locators';
import { observeChanges } from '../page/globals/observing';

/**
 * The owner of each child of the body, because subjects render dialogs and tooltips elsewhere on the page.
 * Null means the test: the element was there before the first subject.
 */
const claims = once('claims', () => new WeakMap<Element, Environment | null>());

/** Tells whether a subject has put an element on the page; undefined where the framework does not know. */
export type Owns = (element: Element) => boolean | undefined;
const owners = once('owners', () => new Map<Environment, Owns>());

/** What belongs to one subject on the page, beside the container it is rendered into. */
export class Outside {
  readonly #environment: Environment;
  /** What was put into elements that were there before the subject came. */
  #inside: Set<Element> | undefined;
  #observer: MutationObserver | undefined;

  /** Begins to track what a subject puts on the page. */
  constructor(
    environment: Environment,
    private readonly body: Element,
    owns: Owns,
  ) {
    this.#environment = environment;
    owners.set(environment, owns);
    environment.sandbox.onTakeDown(() => owners.delete(environment));
    const isAlone = shared.environments.size === 1;
    for (let at = body.firstElementChild; at; at = at.nextElementSibling) {
      if (at.hasAttribute(subjectMark)) continue;
      // With no other subject up, existing elements belong to the test or were left by an earlier subject.
      if (isAlone) claims.set(at, null);
      if (canHold(at)) this.#watch(at);
    }
    environment.sandbox.onTakeDown(() => this.#observer?.disconnect());
  }

  #watch(element: Element): void {
    this.#observer ??= observeChanges(document, (records) => this.#keep(records));
    this.#observer.observe(element, { subtree: true, childList: true });
  }

  #keep(records: readonly MutationRecord[]): void {
    for (const { addedNodes } of records)
      for (const node of addedNodes)
        if (node.nodeType === 1 && ownerOf(node as Element, this.#environment) === this.#environment)
          (this.#inside ??= new Set()).add(node as Element);
  }

  /** The outermost elements of it, in page order. */
  roots(): Element[] {
    if (this.#observer) this.#keep(this.#observer.takeRecords());
    const found: Element[] = [];
    // A loop, because listing a live collection is slow in a simulated page.
    for (let at = this.body.firstElementChild; at; at = at.nextElementSibling) {
      if (this.#isClaimed(at)) found.push(at);
      else if (this.#inside) found.push(...this.#rootsIn(at, this.#inside));
    }
    return found;
  }

  #rootsIn(around: Element, inside: Set<Element>): Element[] {
    const found: Element[] = [];
    for (const element of inside) {
      if (!element.isConnected) inside.delete(element);
      else if (around.contains(element) && !isNested(element, inside)) found.push(element);
    }
    return found.sort((a, b) => (a.compareDocumentPosition(b) & 4 ? -1 : 1));
  }

  #isClaimed(element: Element): boolean {
    const known = claims.get(element);
    if (known !== undefined) return known === this.#environment;
    if (element.hasAttribute(subjectMark)) return false;
    const owner = ownerOf(element, this.#environment);
    claims.set(element, owner);
    return owner === this.#environment;
  }
}

function isNested(element: Element, inside: ReadonlySet<Element>): boolean {
  for (let at = element.parentElement; at; at = at.parentElement) if (inside.has(at)) return true;
  return false;
}

// A changed style sheet is not content.
const canHold = ({ localName }: Element): boolean => !/^(script|style|link|template|iframe)$/.test(localName);

function ownerOf(element: Element, only: Environment): Environment {
  if (owners.size < 2) return only;
  for (const [environment, owns] of owners) if (owns(element)) return environment;
  return shared.current ?? only;
}
