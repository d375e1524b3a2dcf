import { displayOf, isOutOfLine } from './hidden';

/** True for something that only assistive technology passes over: what stands around it is apart nevertheless. */
export const isSpacedAnyway = (child: Element): boolean =>
  child.getAttribute('aria-hidden') === 'true' && displayOf(child) !== 'none' && isApart(child);

const blocks =
  /^(address|article|aside|blockquote|body|br|button|caption|center|dd|details|dialog|div|dl|dt|fieldset|figcaption|figure|footer|form|h\d|header|hgroup|hr|html|input|legend|li|main|menu|meter|nav|ol|optgroup|option|p|pre|progress|search|section|select|summary|table|tbody|td|textarea|tfoot|th|thead|tr|ul|wbr)$/;

/** True for an element that does not stand in a line with what is around it. */
export function isApart(element: Element): boolean {
  const display = displayOf(element);
  const isLine =
    display === '' ? !blocks.test(element.localName) : /^(inline|contents|none|ruby.*)$/.test(display);
  return !isLine || isOutOfLine(element);
}

/** True for an element that puts what is in it apart, whatever that is. @see https://www.w3.org/TR/css-display-4/#blockify */
export const isApartInside = (element: Element): boolean =>
  /^(inline-)?(flex|grid)$/.test(displayOf(element));
