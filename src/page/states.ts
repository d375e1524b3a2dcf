import { around } from './around';
import { supporting } from './aria';
import { descriptionOf } from './descriptions';
import type { RoleState } from './locators';
import { levelOf, roleOf } from './roles';

type Stated = Exclude<keyof RoleState, 'hidden'>;

const readers: { readonly [key in Stated]: (element: Element) => unknown } = {
  level: levelOf,
  checked: checkedOf,
  pressed: (element) => given(element, 'pressed'),
  selected: selectedOf,
  expanded: expandedOf,
  disabled: (element) => whyDisabled(element) !== undefined,
  required: (element) => isNatively(element, 'required') ?? given(element, 'required') ?? false,
  readonly: (element) => isNatively(element, 'readonly') ?? given(element, 'readonly') ?? false,
  invalid: invalidOf,
  current: currentOf,
  busy: (element) => element.getAttribute('aria-busy') === 'true',
  sort: sortOf,
  focused: (element) => hasFocus(element),
  description: descriptionOf,
};

/** The states a locator can ask for. */
export const stateNames = Object.keys(readers) as readonly Stated[];

/** What a state of an element is; undefined for one that has no such state. */
export const stateOf = (element: Element, key: Stated): unknown => readers[key](element);

/** What an attribute says of a state, of an element whose role has it. */
function given(element: Element, state: keyof typeof supporting): boolean | 'mixed' | undefined {
  const value = element.getAttribute(`aria-${state}`);
  if (value === null || !supporting[state].has(roleOf(element) ?? '')) return undefined;
  if (value === 'mixed' && (state === 'checked' || state === 'pressed')) return 'mixed';
  return value === 'true' ? true : value === 'false' ? false : undefined;
}

const neverMixed = new Set(['radio', 'switch', 'menuitemradio']);
const alwaysChecked = new Set(['checkbox', 'menuitemcheckbox', ...neverMixed]);

/** Whether an element is checked, by itself or by ARIA; undefined for one that cannot be. */
export function checkedOf(element: Element): boolean | 'mixed' | undefined {
  const { localName, type, indeterminate, checked } = element as HTMLInputElement;
  if (localName === 'input' && (type === 'checkbox' || type === 'radio'))
    return indeterminate && type === 'checkbox' ? 'mixed' : checked;
  const role = roleOf(element) ?? '';
  const stated = given(element, 'checked');
  if (stated === 'mixed' && neverMixed.has(role)) return false;
  return stated ?? (alwaysChecked.has(role) ? false : undefined);
}

// An element without such a state matches neither value: a plain button is not "not expanded".
function selectedOf(element: Element): unknown {
  return element.localName === 'option'
    ? (element as HTMLOptionElement).selected
    : given(element, 'selected');
}

function expandedOf(element: Element): unknown {
  return element.localName === 'summary'
    ? (element.parentElement?.hasAttribute('open') ?? false)
    : given(element, 'expanded');
}

const fields = /^(input|select|textarea)$/;

// The native state of a field overrides its ARIA attributes.
const isNatively = (element: Element, attribute: string): true | undefined =>
  fields.test(element.localName) && element.hasAttribute(attribute) ? true : undefined;

/** @see https://www.w3.org/TR/wai-aria-1.3/#aria-invalid */
function invalidOf(element: Element): boolean {
  const value = element.getAttribute('aria-invalid');
  if (value && supporting.invalid.has(roleOf(element) ?? '')) return value !== 'false';
  const { localName, type, willValidate, validity } = element as HTMLInputElement;
  if (!fields.test(localName) || !willValidate || validity.valid) return false;
  // A field that was not filled in yet is not invalid.
  return localName === 'select' || /^(checkbox|radio)$/.test(type) || !validity.valueMissing;
}

const kindsOfCurrent = new Set(['page', 'step', 'location', 'date', 'time']);

/** @see https://www.w3.org/TR/wai-aria-1.3/#aria-current */
function currentOf(element: Element): string | boolean {
  const value = element.getAttribute('aria-current') ?? '';
  return kindsOfCurrent.has(value) ? value : value !== '' && value !== 'false';
}

const sorts = new Set(['ascending', 'descending', 'other']);

/** @see https://www.w3.org/TR/wai-aria-1.2/#aria-sort */
function sortOf(element: Element): string | undefined {
  if (!/^(column|row)header$/.test(roleOf(element) ?? '')) return undefined;
  const value = element.getAttribute('aria-sort') ?? '';
  return sorts.has(value) ? value : 'none';
}

// Inside of a shadow tree the root knows which element it is; the document knows the host only.
const hasFocus = (element: Element): boolean =>
  (element.getRootNode() as Document | ShadowRoot).activeElement === element;

const disabling = /^(button|input|select|textarea|option|optgroup|fieldset)$/;

/** Why an element is disabled, as assistive technology says it; undefined for one that is not. */
export const whyDisabled = (element: Element): string | undefined =>
  whyUnusable(element) ??
  (around(element, (at) => at.getAttribute('aria-disabled') === 'true')
    ? 'it has aria-disabled="true"'
    : undefined);

/** True for a control that is disabled, by itself or by what it belongs to. */
export const isDisabled = (element: Element): boolean => whyUnusable(element) !== undefined;

/** Why an element cannot be used: one that only says it is disabled (by ARIA) gets every click there is. */
export function whyUnusable(element: Element): string | undefined {
  const tag = element.localName;
  if (!disabling.test(tag)) return undefined;
  if (element.hasAttribute('disabled')) return 'it is disabled';
  if (tag === 'option' && element.closest('optgroup[disabled],select[disabled]'))
    return 'the list around it is disabled';
  let set: Element | null = element;
  while (set && !(set.localName === 'fieldset' && set.hasAttribute('disabled'))) set = set.parentElement;
  if (set && set !== element && !set.querySelector(':scope > legend')?.contains(element))
    return 'the fieldset around it is disabled';
  return undefined;
}
