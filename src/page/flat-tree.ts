/*
 * The tree that is rendered: what stands in a shadow root in place of what its host holds, and what stands
 * in a slot in place of its own content. See https://drafts.csswg.org/css-shadow-1/#flattening
 */

const hosts = /^(article|aside|blockquote|body|div|footer|h[1-6]|header|main|nav|p|section|span)$|-/;

/** The open shadow root of an element. @param tag its tag, where it was read already */
export const shadowOf = (element: Element, tag = element.localName): ShadowRoot | null =>
  hosts.test(tag) ? element.shadowRoot : null;

/** The element around another one as it is rendered; nothing for one that no slot takes up. */
export function parentOf(element: Element): Element | null {
  const parent = element.parentElement;
  if (parent) {
    if (shadowOf(parent)) return element.assignedSlot;
    return parent;
  }
  const root = element.parentNode as Partial<ShadowRoot> | null;
  return root?.host ?? null;
}

/** True for an element whose host renders something else in its place. */
export const isUnslotted = (element: Element): boolean => {
  const parent = element.parentElement;
  return parent !== null && shadowOf(parent) !== null && !element.assignedSlot;
};

/** What is rendered inside of an element. */
export function childNodesOf(element: Element): readonly Node[] {
  if (element.localName === 'slot') {
    const assigned = (element as HTMLSlotElement).assignedNodes?.() ?? [];
    if (assigned.length > 0) return assigned;
  }
  const nodes: Node[] = [];
  for (let at = (shadowOf(element) ?? element).firstChild; at; at = at.nextSibling) nodes.push(at);
  return nodes;
}

/** The elements that are rendered right inside of an element, as far as they are not simply its children. */
export const renderedIn = (element: Element): Element[] | undefined =>
  element.localName === 'slot' || shadowOf(element)
    ? (childNodesOf(element).filter(({ nodeType }) => nodeType === 1) as Element[])
    : undefined;

/** The element with an id, where another one can refer to it. */
export function byId(element: Element, id: string): Element | null {
  const root = element.getRootNode() as ParentNode & Partial<NonElementParentNode>;
  return root.getElementById?.(id) ?? root.querySelector?.(`[id=${JSON.stringify(id)}]`) ?? null;
}

/** The elements an attribute refers to by their ids. */
export function referredBy(element: Element, attribute: string): Element[] {
  const ids = element.getAttribute(attribute)?.split(/\s+/).filter(Boolean);
  if (!ids) return [];
  return ids.map((id) => byId(element, id)).filter((found) => found !== null);
}
