import { gistOf, tellNews } from './gist';

const everything: MutationObserverInit = {
  subtree: true,
  childList: true,
  attributes: true,
  attributeOldValue: true,
  characterData: true,
  characterDataOldValue: true,
};

/**
 * What the page looked like at every moment. Nothing is copied while the test runs: the platform's
 * own record of changes is kept, and an earlier moment is rebuilt from it only when somebody asks.
 *
 * @see https://dom.spec.whatwg.org/#mutation-observers
 */
export class PageHistory {
  readonly root: Element;
  readonly #observer: MutationObserver;
  readonly #records: MutationRecord[] = [];
  /** How many records there were at the end of each moment. */
  readonly #moments: number[] = [];
  #rebuilt: { upTo: number; frames: Element[]; gists: string[][] } | undefined;

  constructor(
    /** Where the subject is rendered. */
    container: Element,
    /** Which children of the body belong to the subject. */
    readonly belongs: (child: Element) => boolean,
  ) {
    this.root = container.ownerDocument.body;
    const { MutationObserver } = container.ownerDocument.defaultView as unknown as typeof globalThis;
    this.#observer = new MutationObserver((records) => this.#keep(records));
    // The body is watched for what comes and goes, not all below it: the simulated page would keep
    // everything that was ever taken off it until the next full collection of garbage.
    this.#observer.observe(this.root, { childList: true });
    this.#observer.observe(container, everything);
  }

  #keep(records: readonly MutationRecord[]): void {
    this.#records.push(...records);
    for (const { target, addedNodes } of records) {
      if (target !== this.root) continue;
      for (const node of addedNodes) {
        if (node.nodeType === 1 && this.belongs(node as Element)) this.#observer.observe(node, everything);
      }
    }
  }

  /** Ends a moment: what changes from here on belongs to the next. @returns its number, from 0 */
  mark(): number {
    this.#keep(this.#observer.takeRecords());
    return this.#moments.push(this.#records.length) - 1;
  }

  /** True where the page has changed since the last moment ended. */
  get changed(): boolean {
    this.#keep(this.#observer.takeRecords());
    return this.#records.length > (this.#moments.at(-1) ?? 0);
  }

  /** The page at every moment so far, rebuilt; the last one is the page as it is. */
  frames(): Element[] {
    return this.#rebuild().frames;
  }

  /** What a moment showed that the one before it did not, in a few words. */
  news(moment: number): string {
    if (this.#moments[moment] === (this.#moments[moment - 1] ?? 0)) return 'looks as before';
    const { gists } = this.#rebuild();
    return tellNews(gists[moment - 1] ?? [], gists[moment] ?? []);
  }

  stop(): void {
    this.mark();
    this.#observer.disconnect();
  }

  #rebuild() {
    this.#keep(this.#observer.takeRecords());
    const upTo = this.#records.length * 1e6 + this.#moments.length;
    if (this.#rebuilt?.upTo !== upTo) {
      const frames = rewind(this, this.#records, this.#moments);
      this.#rebuilt = { upTo, frames, gists: frames.map(gistOf) };
    }
    return this.#rebuilt;
  }
}

/** Undoes the records one by one on a likeness of the page, and copies it at each moment. */
function rewind(
  page: Pick<PageHistory, 'root' | 'belongs'>,
  records: readonly MutationRecord[],
  moments: readonly number[],
): Element[] {
  const likeness = new Likeness();
  const frames: Element[] = [];
  let next = records.length;
  for (const end of [...moments].reverse()) {
    while (next > end) likeness.undo(records[--next]!);
    frames.unshift(likeness.copy(page.root, (child) => page.belongs(child as Element)) as Element);
  }
  return frames;
}

/** The page as it was, kept beside the page: only what differs from now is written down. */
class Likeness {
  readonly #children = new Map<Node, Node[]>();
  readonly #attributes = new Map<Node, Map<string, string | null>>();
  readonly #data = new Map<Node, string | null>();

  undo(record: MutationRecord): void {
    const { target } = record;
    if (record.type === 'attributes') {
      const changed = this.#attributes.get(target) ?? new Map<string, string | null>();
      this.#attributes.set(target, changed.set(record.attributeName!, record.oldValue));
    } else if (record.type === 'characterData') {
      this.#data.set(target, record.oldValue);
    } else {
      this.#undoChildren(record);
    }
  }

  #undoChildren({ target, addedNodes, removedNodes, previousSibling, nextSibling }: MutationRecord): void {
    const added = new Set<Node>(addedNodes);
    const children = this.#childrenOf(target).filter((node) => !added.has(node));
    const after = previousSibling ? children.indexOf(previousSibling) + 1 : 0;
    const before = nextSibling ? children.indexOf(nextSibling) : -1;
    const at = after > 0 ? after : before >= 0 ? before : previousSibling ? children.length : 0;
    children.splice(at, 0, ...removedNodes);
    this.#children.set(target, children);
  }

  readonly #childrenOf = (node: Node): Node[] => this.#children.get(node) ?? [...node.childNodes];

  copy(node: Node, belongs: (child: Node) => boolean = () => true): Node {
    // A copy of the body stands for the subject's place, and must not look like a page of its own.
    const copy = node.nodeName === 'BODY' ? node.ownerDocument!.createElement('div') : node.cloneNode(false);
    const data = this.#data.get(node);
    if (data !== undefined) copy.nodeValue = data;
    for (const [name, value] of this.#attributes.get(node) ?? []) {
      if (value === null) (copy as Element).removeAttribute(name);
      else (copy as Element).setAttribute(name, value);
    }
    for (const child of this.#childrenOf(node)) if (belongs(child)) copy.appendChild(this.copy(child));
    return copy;
  }
}
