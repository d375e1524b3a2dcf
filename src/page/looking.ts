import { shadowOf } from './flat-tree';

/** What is known of a page while it is looked at, which changes nothing. */
interface Known {
  readonly document: Document;
  /** What was found out of elements, by what it is. */
  readonly facts: Map<string, Map<Node, unknown>>;
}
let known: Known | undefined;

/** Looks at a page as it is: what takes long to find out is found out once. */
export function looking<T>(document: Document, look: () => T): T {
  const before = known;
  if (before?.document !== document) known = { document, facts: new Map() };
  try {
    return look();
  } finally {
    known = before;
  }
}

/** Looks at a page that changes on the way: each look begins anew. */
export function lookingAnew<T>(look: () => T): T {
  const before = known;
  known = undefined;
  try {
    return look();
  } finally {
    known = before;
  }
}

/** Facts of one kind about nodes, kept as long as the page is looked at. */
export function factsOf<T>(kind: string): Map<Node, T> {
  let found = known?.facts.get(kind);
  if (!found) {
    found = new Map();
    known?.facts.set(kind, found);
  }
  return found as Map<Node, T>;
}

/** Finds something out of a node, once while the page is looked at. */
export function onceFor<T, Of extends Node>(kind: string, node: Of, find: (node: Of) => T): T {
  if (!known) return find(node);
  const facts = factsOf<T>(kind);
  let fact = facts.get(node);
  if (fact === undefined && !facts.has(node)) facts.set(node, (fact = find(node)));
  return fact as T;
}

/** An element and all that is in it, in page order. */
export interface Scan {
  readonly elements: readonly Element[];
  /** The tag of each. */
  readonly tags: readonly string[];
  /** Which of them have attributes, by their place in the list. */
  readonly attributed: readonly number[];
  /** True where shadow roots or slots make what is rendered another tree than this. */
  readonly hasShadows: boolean;
}

/** Reads what is in an element. */
export const scan = (root: Element): Scan => onceFor('scan', root, readScan);

const slottedIn = (slot: Element): Element[] =>
  (slot as HTMLSlotElement).assignedElements?.().reverse() ?? [];

/** True for a node that stands somewhere in an element or in a shadow root there. */
function isBelow(node: Node, root: Element): boolean {
  for (let at: Node | null = node; at; at = at.parentNode ?? (at as Partial<ShadowRoot>).host ?? null)
    if (at === root) return true;
  return false;
}

// A list instead of recursion, since a page may be nested very deeply. And no selectors, since they take a
// simulated page several times as long.
function readScan(root: Element): Scan {
  const elements: Element[] = [];
  const tags: string[] = [];
  const attributed: number[] = [];
  let hasShadows = false;
  const next: Element[] = [root];
  for (let element = next.pop(); element; element = next.pop()) {
    if (element.hasAttributes()) attributed.push(elements.length);
    const tag = element.localName;
    tags.push(tag);
    elements.push(element);
    const shadow = shadowOf(element, tag);
    hasShadows ||= shadow !== null || tag === 'slot';
    for (let at = element.lastElementChild; at; at = at.previousElementSibling) next.push(at);
    for (let at = shadow?.lastElementChild; at; at = at.previousElementSibling) next.push(at);
    // What a slot takes up from outside of the root is in it as well.
    if (tag === 'slot') for (const one of slottedIn(element)) if (!isBelow(one, root)) next.push(one);
  }
  return { elements, tags, attributed, hasShadows };
}
