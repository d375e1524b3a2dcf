/** The nearest of an element and those around it that fits. A selector takes a simulated page far longer. */
export function around(element: Element, fits: (at: Element) => boolean): Element | undefined {
  for (let at: Element | null = element; at; at = at.parentElement) if (fits(at)) return at;
  return undefined;
}

/** What is around an element, out of shadow trees too. */
export const parentOf = (element: Element): Element | null =>
  element.parentElement ?? (element.getRootNode() as Partial<ShadowRoot>).host ?? null;
