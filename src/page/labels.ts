import { around } from './around';

/** The label elements tied to a field, by `for` or around it. */
export function labelElementsOf(element: Element): Element[] {
  if (labelable.test(element.localName)) return tiedLabels(element);
  const enclosing = labelAround(element);
  return enclosing ? [enclosing] : [];
}

const labelAround = (element: Element) => around(element, ({ localName }) => localName === 'label');

const labelable = /^(button|input|meter|output|progress|select|textarea)$/;

// Without the platform's `labels`, because a simulated page walks the whole document for each element.
function tiedLabels(element: Element): Element[] {
  const enclosing = labelAround(element);
  const tied: Element[] =
    enclosing && !enclosing.hasAttribute('for') && firstLabelable(enclosing) === element ? [enclosing] : [];
  if (!element.id) return tied;
  for (const label of labelsAround(element))
    if (label.getAttribute('for') === element.id && !tied.includes(label)) tied.push(label);
  return tied.length < 2 ? tied : tied.sort((a, b) => (a.compareDocumentPosition(b) & 4 ? -1 : 1));
}

// The live collection is fast, but only a document has it, not a shadow root or an earlier moment of the
// page.
const labelsAround = (element: Element): Iterable<Element> => {
  const root = element.getRootNode() as Partial<ParentNode & Document>;
  return root.getElementsByTagName && !element.isConnected
    ? (root.querySelectorAll?.('label[for]') ?? [])
    : (root.getElementsByTagName?.('label') ?? root.querySelectorAll?.('label[for]') ?? []);
};

const firstLabelable = (label: Element): Element | null =>
  label.querySelector('button,input:not([type=hidden]),meter,output,progress,select,textarea');
