/** True for the element that opens its `details`. @see https://html.spec.whatwg.org/multipage/interactive-elements.html#the-summary-element */
export function isSummary(element: Element): boolean {
  const parent = element.parentElement;
  if (element.localName !== 'summary' || parent?.localName !== 'details') return false;
  let first = parent.firstElementChild;
  while (first && first.localName !== 'summary') first = first.nextElementSibling;
  return first === element;
}
