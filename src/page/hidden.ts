const unrendered = /^(script|style|template|head|noscript|datalist)$/;

/** True for an element whose content a person never meets, looking at it alone. */
export function isLeftOut(element: Element): boolean {
  return (
    element.getAttribute('aria-hidden') === 'true' ||
    (!(element as HTMLElement).getAttribute('role') && unrendered.test(element.localName)) ||
    whyUnseen(element) !== undefined
  );
}

/**
 * Why a person cannot perceive an element: it or something around it is not displayed or hidden
 * from assistive technology. Undefined for one that can be perceived.
 *
 * @param seen what was found of elements already, so that a search looks at each but once
 */
export function whyHidden(
  element: Element,
  aria: boolean,
  seen = new Map<Element, string | undefined>(),
): string | undefined {
  if (seen.has(element)) return seen.get(element);
  const own =
    (aria && element.getAttribute('aria-hidden') === 'true'
      ? `aria-hidden="true" on ${tagOf(element)} hides it from assistive technology`
      : undefined) ??
    (unrendered.test(element.localName) ? `${tagOf(element)} is never displayed` : undefined) ??
    whyUnseen(element);
  const why = own ?? (element.parentElement ? whyHidden(element.parentElement, aria, seen) : undefined);
  seen.set(element, why);
  return why;
}

function whyUnseen(element: Element): string | undefined {
  if (element.hasAttribute('hidden')) return `${tagOf(element)} has the attribute hidden`;
  if (element.localName === 'input' && element.getAttribute('type') === 'hidden') {
    return 'an input of the type "hidden" is never displayed';
  }
  if (element.localName === 'dialog' && !element.hasAttribute('open')) return 'the dialog is not open';
  if (isFolded(element)) return 'it is inside <details> that is closed';
  const style = styleOf(element);
  if (style?.display === 'none') return `${tagOf(element)} has display: none`;
  if (style?.visibility === 'hidden' || style?.visibility === 'collapse') {
    return `${tagOf(element)} has visibility: ${style.visibility}`;
  }
  return undefined;
}

// Computing styles is by far the slowest thing a simulated page does. Without a style sheet the
// element's own style attribute is all that can hide it.
function styleOf(element: Element): { display: string; visibility: string } | undefined {
  const { styleSheets, defaultView } = element.ownerDocument;
  if (styleSheets.length > 0 && element.isConnected && defaultView)
    return defaultView.getComputedStyle(element);
  return element.hasAttribute('style') ? (element as HTMLElement).style : undefined;
}

function isFolded(element: Element): boolean {
  const parent = element.parentElement;
  return parent?.localName === 'details' && !parent.hasAttribute('open') && element.localName !== 'summary';
}

/** `<div class="tray">`: the start tag of an element, cut short. */
export function tagOf(element: Element): string {
  const shown = ['id', 'class', 'type', 'data-part'].flatMap((name) => {
    const value = element.getAttribute(name);
    return value ? [` ${name}="${value.length > 24 ? `${value.slice(0, 23)}…` : value}"`] : [];
  });
  return `<${element.localName}${shown.slice(0, 2).join('')}>`;
}
