/** The label elements tied to a field, by `for` or around it. */
export function labelElementsOf(element: Element): Element[] {
  if (labelable.test(element.localName)) return tiedLabels(element);
  const around = element.closest('label');
  return around ? [around] : [];
}

const labelable = /^(button|input|meter|output|progress|select|textarea)$/;

// Not by the platform's `labels`: a simulated page walks the whole document for it, for each element anew.
function tiedLabels(element: Element): Element[] {
  const around = element.closest('label');
  const tied: Element[] =
    around && !around.hasAttribute('for') && firstLabelable(around) === element ? [around] : [];
  if (!element.id) return tied;
  for (const label of labelsAround(element))
    if (label.getAttribute('for') === element.id && !tied.includes(label)) tied.push(label);
  return tied.length < 2 ? tied : tied.sort((a, b) => (a.compareDocumentPosition(b) & 4 ? -1 : 1));
}

// The live list is quick, but only a document has it: not an earlier moment of the page, nor a shadow root.
const labelsAround = (element: Element): Iterable<Element> => {
  const root = element.getRootNode() as Partial<ParentNode & Document>;
  return root.getElementsByTagName && !element.isConnected
    ? (root.querySelectorAll?.('label[for]') ?? [])
    : (root.getElementsByTagName?.('label') ?? root.querySelectorAll?.('label[for]') ?? []);
};

const firstLabelable = (label: Element): Element | null =>
  label.querySelector('button,input:not([type=hidden]),meter,output,progress,select,textarea');
