import { around } from './around';
import { tagOf } from './hidden';
import { quoteCode } from './locators';
import { labelElementsOf } from './labels';
import { nameOrTextOf, nameOf, textOf } from './names';
import { levelOf, roleOf } from './roles';
import { checkedOf, whyDisabled } from './states';

/** An element as a person would call it: `button "Log inspection"`, `heading "Anemone"`. */
export function describe(element: Element): string {
  const role = roleOf(element);
  if (!role) {
    const text = textOf(element) || (labelElementsOf(element).length > 0 ? nameOf(element) : '');
    return text ? `${tagOf(element)} ${quote(text)}` : tagOf(element);
  }
  const heard = nameOrTextOf(element);
  return heard ? `${role} ${quote(heard)}` : role;
}

/** An element with its state: `checkbox "Marked" checked`. */
export function describeState(element: Element): string {
  const states = [
    roleOf(element) === 'heading' ? `level ${levelOf(element)}` : '',
    isField(element) && (element as HTMLInputElement).value
      ? `value ${quote((element as HTMLInputElement).value)}`
      : '',
    checkedOf(element) ? 'checked' : '',
    whyDisabled(element) ? 'disabled' : '',
    element.getAttribute('aria-expanded')
      ? element.getAttribute('aria-expanded') === 'true'
        ? 'expanded'
        : 'collapsed'
      : '',
  ].filter(Boolean);
  return [describe(element), ...states].join(' ');
}

const notTyped = /^(checkbox|radio|button|submit|reset|image|file|hidden)$/;

/** True for an element a person can type into or set a value of. */
export const isField = (element: Element): boolean =>
  /^(textarea|select)$/.test(element.localName) ||
  (element.localName === 'input' && !notTyped.test((element as HTMLInputElement).type)) ||
  isEditable(element);

/** True for an element that is no field, but whose content a person can edit. */
export const isEditable = (element: Element): boolean =>
  (element as HTMLElement).isContentEditable ??
  // A simulated page does not know by itself.
  /^(|true|plaintext-only)$/.test(
    around(element, (at) => at.hasAttribute('contenteditable'))?.getAttribute('contenteditable') ?? 'false',
  );

const quote = (text: string) => JSON.stringify(text.length > 60 ? `${text.slice(0, 59)}…` : text);

/** The code that finds an element again. */
export function locatorFor(element: Element): string {
  const role = roleOf(element);
  const name = nameOf(element);
  if (isField(element) && labelElementsOf(element).length > 0) return `label(${quoteCode(name)})`;
  if (role && name) return `role('${role}', ${quoteCode(name)})`;
  if (role && role !== 'paragraph' && role !== 'listitem' && nameOrTextOf(element))
    return `role('${role}', ${quoteCode(nameOrTextOf(element))})`;
  const id = element.getAttribute('data-testid');
  if (id) return `testId(${quoteCode(id)})`;
  const text = textOf(element);
  return text && text.length < 60
    ? `text(${quoteCode(text)})`
    : role
      ? `role('${role}')`
      : `css('${element.localName}')`;
}
