import { describe } from '../../../page/describe';
import { tagOf } from '../../../page/hidden';
import { refuse } from '../../../page/errors';
import type { Place } from '../../../page/gestures/person';
import { middleOf, middleOfArea, pathOf } from '../../../page/gestures/pointer';

/* Where on the page a pointer meets an element. */

/** Where an element may be met that has others in its middle. */
const edgesOf = ({ left, top, right, bottom }: DOMRect): Place[] => {
  const [x, y] = [Math.min(2, (right - left) / 4), Math.min(2, (bottom - top) / 4)];
  return [left + x, right - x].flatMap((clientX) =>
    [top + y, bottom - y].map((clientY) => ({ clientX, clientY })),
  );
};

/** The areas an element is shown in: its own, or else those of what it holds. */
function areasOf(element: Element): DOMRect[] {
  const content = element.ownerDocument.createRange();
  content.selectNodeContents(element);
  const all = [element.getBoundingClientRect(), ...element.getClientRects(), ...content.getClientRects()];
  return all.filter(({ width, height }) => width > 0 && height > 0);
}

/** What the pointer would meet, also inside of shadow trees. */
function elementAt(document: Document, { clientX, clientY }: Place): Element | undefined {
  let found = document.elementFromPoint(clientX, clientY);
  while (found?.shadowRoot) {
    const inside: Element | null = found.shadowRoot.elementFromPoint(clientX, clientY);
    if (!inside || inside === found) break;
    found = inside;
  }
  return found ?? undefined;
}

/** What a click on does the same: the element, or the label of a field. */
const placesFor = (element: Element): Element[] => [
  element,
  ...((element as Partial<HTMLInputElement>).labels ?? []),
];

/**
 * A place of an element where a pointer meets it, which is brought into view for it.
 *
 * @returns undefined for an element that has no size, as a stub without a style
 * @throws SIM-ACT-HIDDEN where something covers it
 */
export function placeOf(element: Element, act: string): Place | undefined {
  const { ownerDocument: document } = element;
  let covering: Element | undefined;
  let isOff = false;
  for (const target of placesFor(element)) {
    if (areasOf(target).length === 0) continue;
    if (!meets(document, target, middleOf(target)))
      target.scrollIntoView({ block: 'nearest', inline: 'nearest', behavior: 'instant' });
    const areas = areasOf(target);
    const all = [...areas.map(middleOfArea), ...areas.flatMap(edgesOf)];
    const place =
      all.find((one) => elementAt(document, one) === target) ??
      all.find((one) => meets(document, target, one));
    if (place) return place;
    const other = elementAt(document, all[0]!);
    covering ??= other;
    isOff ||= !other;
  }
  if (!covering && !isOff) return undefined;
  const why = covering
    ? `${tagOf(covering)} lies over it`
    : 'it is outside of what the window shows, and cannot be scrolled to';
  return refuse('SIM-ACT-HIDDEN', { act, element: describe(element), why });
}

function meets(document: Document, target: Element, place: Place): boolean {
  const found = elementAt(document, place);
  return found !== undefined && pathOf(found).includes(target);
}
