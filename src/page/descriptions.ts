import { foldSpace } from './locators';
import { onceFor } from './looking';
import { childName, namedOf, textReferred, type Named } from './names';

/**
 * The accessible description of an element.
 *
 * @see https://www.w3.org/TR/accname-1.2/#mapping_additional_nd_description
 */
export const descriptionOf = (element: Element): string => onceFor('description', element, readDescription);

function readDescription(element: Element): string {
  const described = textReferred(element, 'aria-describedby') || element.getAttribute('aria-description');
  if (described?.trim()) return foldSpace(described);
  const { name, from } = namedOf(element);
  const own = from === 'title' ? null : nativeDescription(element, from) || element.getAttribute('title');
  return own && foldSpace(own) !== name ? foldSpace(own) : '';
}

function nativeDescription(element: Element, from: Named['from']): string | undefined {
  const within = { seen: new Set([element]) };
  if (element.localName === 'table')
    return from === 'native' ? undefined : childName(element, 'caption', within);
  if (!/svg/.test(element.namespaceURI ?? '')) return undefined;
  return (
    childName(element, 'desc', within) ||
    (from === 'native' ? undefined : childName(element, 'title', within))
  );
}
