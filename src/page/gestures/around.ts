/** The nearest of an element and those around it that fits. A selector takes a simulated page far longer. */
export function around(element: Element, fits: (at: Element) => boolean): Element | undefined {
  for (let at: Element | null = element; at; at = at.parentElement) if (fits(at)) return at;
  return undefined;
}

/** What is around an element, out of shadow trees too. */
export const parentOf = (element: Element): Element | null =>
  element.parentElement ?? (element.getRootNode() as Partial<ShadowRoot>).host ?? null;

const controls = new Set(['button', 'input', 'select', 'textarea', 'option', 'optgroup', 'fieldset']);

/** True for a control that is disabled, by itself or by a fieldset. */
export const isDisabled = (element: Element): boolean =>
  controls.has(element.localName) && element.matches(':disabled');
