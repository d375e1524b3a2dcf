/**
 * A copy of a part of the page that goes back in time: records of changes are undone on it, the last one
 * first. It belongs to a document of its own, in which nothing is loaded and no custom element comes to life.
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
    // Both trees are walked side by side, by a list: they may be nested more deeply than calls can be.
    const pairs: [Node, Node][] = [[node, copy]];
    for (let pair = pairs.pop(); pair; pair = pairs.pop()) {
      const [original, twin] = pair;
      this.#copies.set(original, twin);
      let next = twin.firstChild;
      for (let child = original.firstChild; child && next; child = child.nextSibling) {
        const after: ChildNode | null = next.nextSibling;
        const earlier = this.#copies.get(child);
        // What was copied before, and has been put elsewhere since, is one and the same.
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
    // Of an attribute or a text only what it was first counts.
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
