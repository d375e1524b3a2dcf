/**
 * A copy of a part of the page that goes back in time by undoing recorded changes, the last one first. It
 * belongs to a separate document, in which nothing loads and no custom element is upgraded.
 */
export class Likeness {
  /** What stands for the body. */
  readonly frame: Element;
  readonly #document: Document;
  readonly #copies = new Map<Node, Node>();

  constructor(document: Document, roots: readonly Element[]) {
    this.#document = document.implementation.createHTMLDocument('');
    this.frame = this.#document.createElement('div');
    this.show(roots);
  }

  /** Shows other children of the body. */
  show(roots: readonly Element[]): void {
    this.frame.replaceChildren(...roots.map((root) => this.#copyOf(root)));
  }

  #copyOf(node: Node): Node {
    const known = this.#copies.get(node);
    if (known) return known;
    const copy = this.#document.importNode(node, true);
    // Walks both trees side by side, with a list instead of recursion, since they may be nested very deeply.
    const pairs: [Node, Node][] = [[node, copy]];
    for (let pair = pairs.pop(); pair; pair = pairs.pop()) {
      const [original, twin] = pair;
      this.#copies.set(original, twin);
      let next = twin.firstChild;
      for (let child = original.firstChild; child && next; child = child.nextSibling) {
        const after: ChildNode | null = next.nextSibling;
        const earlier = this.#copies.get(child);
        // A node that was copied before and has moved since is the same node.
        if (earlier) twin.replaceChild(earlier, next);
        else pairs.push([child, next]);
        next = after;
      }
    }
    return copy;
  }

  /** The outermost elements that some records change. */
  places(records: readonly MutationRecord[], from: number, to: number): Element[] {
    const touched = new Set<Element>();
    for (let at = from; at < to; at++) {
      const { target } = records[at]!;
      const element = target.nodeType === 1 ? target : target.parentNode;
      const copy = element && this.#copies.get(element);
      if (copy) touched.add(copy as Element);
    }
    return [...touched].filter((element) => {
      for (let around = element.parentElement; around; around = around.parentElement)
        if (touched.has(around)) return false;
      return true;
    });
  }

  /** Undoes records from the last to the first. */
  undo(records: readonly MutationRecord[], from: number, to: number): void {
    for (let at = to - 1; at >= from; at--) {
      const record = records[at]!;
      if (record.type === 'childList') this.#undoChildren(record);
    }
    // For an attribute or a text only the first old value counts.
    const done = new Map<Node, Set<string>>();
    for (let at = from; at < to; at++) {
      const { type, target, attributeName, oldValue } = records[at]!;
      if (type === 'childList') continue;
      const names = done.get(target) ?? new Set<string>();
      const name = attributeName ?? '#text';
      if (names.has(name)) continue;
      done.set(target, names.add(name));
      const copy = this.#copyOf(target);
      if (type === 'characterData') copy.nodeValue = oldValue;
      else if (oldValue === null) (copy as Element).removeAttribute(name);
      else (copy as Element).setAttribute(name, oldValue);
    }
  }

  #undoChildren({ target, addedNodes, removedNodes, previousSibling, nextSibling }: MutationRecord): void {
    const parent = this.#copyOf(target);
    for (let at = 0; at < addedNodes.length; at++) {
      const copy = this.#copies.get(addedNodes[at]!);
      if (copy?.parentNode === parent) parent.removeChild(copy);
    }
    if (removedNodes.length === 0) return;
    const after = previousSibling && this.#copies.get(previousSibling);
    const before = nextSibling && this.#copies.get(nextSibling);
    let place: Node | null = null;
    if (after?.parentNode === parent) place = after.nextSibling;
    else if (before?.parentNode === parent) place = before;
    else if (!previousSibling) place = parent.firstChild;
    for (let at = 0; at < removedNodes.length; at++)
      parent.insertBefore(this.#copyOf(removedNodes[at]!), place);
  }
}
