/** The nearest of an element and those around it that fits. A selector takes a simulated page far longer. */
export function around(element: Element, fits: (at: Element) => boolean): Element | undefined {
  for (let at: Element | null = element; at; at = at.parentElement) if (fits(at)) return at;
  return undefined;
}
