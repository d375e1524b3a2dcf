import { refuse } from './errors';
import { mayHide, whyHidden } from './hidden';
import {
  fits,
  foldSpace,
  isLocator,
  subjectMark,
  type Locator,
  type RoleState,
  type Words,
} from './locators';
import { looking, scan } from './looking';
import { altersNames, heardOf, labelElementsOf, nameOf, textIn, textOf } from './names';
import { heardAsText, levelOf, namedByContent, roleOf, tagsOf } from './roles';

/** A stub on the page, and how to have the real component instead. */
export interface StubShown {
  readonly name: string;
  readonly elements: readonly Element[];
  /** What to write so that the real one is rendered. */
  readonly instead: string;
}

/** What a search looks at, and what it cannot know of itself. */
export interface View {
  /** Where to look: the subject's own place first, then what it put elsewhere on the page. */
  readonly roots: readonly Element[];
  /** The elements a child component has rendered. */
  partsOf(component: unknown): readonly Element[];
  /** How a component is called. */
  nameOf(component: unknown): string;
  /** The stubs on the page, which have no inside of their own; none where that is not told. */
  stubs?(): readonly StubShown[];
}

/** Every element that a locator fits, in page order; `anyway` includes what nobody perceives. */
export function locate(locator: Locator, view: View, anyway = false): Element[] {
  const [root] = view.roots;
  return root ? looking(root.ownerDocument, () => locateKnowing(locator, view, anyway)) : [];
}

function locateKnowing(locator: Locator, view: View, anyway: boolean): Element[] {
  const fitting = candidates(locator, view);
  if (anyway || locator.hidden) return fitting;
  const aria = locator.sought.by === 'role' || locator.sought.by === 'label';
  const isSafe = view.roots.every((root) => !mayHide(root) && whyHidden(root, aria) === undefined);
  return isSafe ? fitting : fitting.filter((element) => whyHidden(element, aria) === undefined);
}

function candidates(locator: Locator, view: View): Element[] {
  const { outer, sought } = locator;
  const roots = !outer ? view.roots : isLocator(outer) ? locate(outer, view) : [outer];
  if (sought.by === 'part') {
    const parts = view.partsOf(sought.component);
    return outer
      ? parts.filter((part) => roots.some((root) => root !== part && root.contains(part)))
      : [...parts];
  }
  const found = roots.flatMap((root) => search(locator, root, !outer && isOutside(root)));
  return roots.length > 1 ? [...new Set(found)] : found;
}

/** @param itself true where the root may be what is sought itself */
function search({ sought }: Locator, root: Element, itself: boolean): Element[] {
  switch (sought.by) {
    case 'role': {
      const { role, name, state } = sought;
      const mayFit = quickLook(root, role, name);
      return mayHaveRole(root, role, itself).filter(
        (element) =>
          mayFit(element) &&
          roleOf(element) === role &&
          fitsState(element, state) &&
          (name === undefined || fits(name, heardOf(element))),
      );
    }
    case 'label':
      return queryAll(root, fieldSelector, itself).filter((element) => hasLabel(element, sought.words));
    case 'text':
      return searchText(root, sought.words, itself);
    case 'testId':
      return queryAll(root, '[data-testid]', itself).filter((element) =>
        fits(sought.words, element.getAttribute('data-testid') ?? ''),
      );
    case 'css':
      return queryBySelector(root, sought.selector, itself);
    case 'part':
      return [];
    default:
      return sought satisfies never;
  }
}

// Where nothing on a page alters names, a name is the text it is made of but for white space. Told
// once for the whole page, that spares a thousand rows the computation of theirs.
function quickLook(root: Element, role: string, name: Words | undefined): (element: Element) => boolean {
  const made = namedByContent.has(role) || heardAsText.has(role);
  if (typeof name !== 'string' || !made || altersNames(root)) return () => true;
  const wanted = squeeze(name);
  return (element) => squeeze(textIn(element)) === wanted;
}

const squeeze = (text: string) => text.replace(/\s+/g, '');

// What a subject put elsewhere on the page is itself a part of it; its container is not.
const isOutside = (root: Element) => root.parentElement !== null && !root.hasAttribute(subjectMark);

const queryAll = (root: Element, selector: string, itself: boolean): Element[] => {
  if (selector === '*') return scan(root).elements.slice(itself ? 0 : 1);
  const below = [...root.querySelectorAll(selector)];
  return itself && root.matches(selector) ? [root, ...below] : below;
};

// What may have a role by its tag, or says that it has one.
function mayHaveRole(root: Element, role: string, itself: boolean): Element[] {
  const { elements, tags, attributed } = scan(root);
  const own = tagsOf(role);
  const found = new Set<number>();
  for (const [at, tag] of tags.entries()) if (own.has(tag)) found.add(at);
  const given = attributed.filter((at) => !found.has(at) && elements[at]!.hasAttribute('role'));
  const all = given.length === 0 ? [...found] : [...found, ...given].sort((a, b) => a - b);
  return all.filter((at) => at > 0 || itself).map((at) => elements[at]!);
}

function queryBySelector(root: Element, selector: string, itself: boolean): Element[] {
  try {
    return queryAll(root, selector, itself);
  } catch (cause) {
    return refuse('SIM-SELECTOR', { selector, why: (cause as Error).message }, { cause });
  }
}

/** What can have a label. */
export const fieldSelector =
  'input:not([type=hidden]),select,textarea,meter,output,progress,[contenteditable],[role=textbox],[role=combobox],[role=searchbox],[role=spinbutton],[role=slider],[role=switch],[role=checkbox],[role=radio],[role=listbox],[role=radiogroup],[role=group]';

// A label is what it says to the eye as well as what it comes to as a name.
const hasLabel = (element: Element, words: string | RegExp) =>
  labelElementsOf(element).some((label) => fits(words, ownText(label))) || fits(words, nameOf(element));

// The text of a label around its field is without what the field itself holds.
const ownText = (label: Element) =>
  foldSpace(
    [...label.childNodes]
      .filter((node) => !/^(SELECT|TEXTAREA|INPUT)$/.test(node.nodeName))
      .map((node) => node.textContent ?? '')
      .join(''),
  );

function searchText(root: Element, words: string | RegExp, itself: boolean): Element[] {
  const found: Element[] = [];
  const wanted = typeof words === 'string' && !altersNames(root) ? squeeze(words) : undefined;
  const visit = (element: Element): boolean => {
    // Words that are not anywhere below are in none of it; most of a page is passed over by that.
    if (wanted !== undefined && !squeeze(textIn(element)).includes(wanted)) return false;
    let inner = false;
    for (let child = element.firstElementChild; child; child = child.nextElementSibling) {
      if (child.localName !== 'script' && child.localName !== 'style') inner = visit(child) || inner;
    }
    if (inner || !element.firstChild || !fits(words, textOf(element))) return inner;
    found.push(element);
    return true;
  };
  // Looked at as one string first: most searches end here, or need not go down at all.
  if (typeof words !== 'string' || foldSpace(textIn(root)).includes(foldSpace(words)) || mayHide(root)) {
    // A subject may be nothing but text, which then stands right in its container.
    if (itself || (root.hasAttribute(subjectMark) && root.parentElement)) visit(root);
    else for (let child = root.firstElementChild; child; child = child.nextElementSibling) visit(child);
  }
  return found;
}

/**
 * True where one element fits what is sought, taken by itself; of a text also where something inside of it
 * does.
 */
export function fitsAt(element: Element, { sought, hidden }: Locator): boolean {
  const fitsSought = () => {
    switch (sought.by) {
      case 'role':
        return (
          roleOf(element) === sought.role &&
          fitsState(element, sought.state) &&
          (sought.name === undefined || fits(sought.name, heardOf(element)))
        );
      case 'text':
        return fits(sought.words, textOf(element));
      case 'testId':
        return fits(sought.words, element.getAttribute('data-testid') ?? '');
      default:
        return false;
    }
  };
  return fitsSought() && (hidden || whyHidden(element, sought.by === 'role') === undefined);
}

const fitsState = (element: Element, state: RoleState): boolean =>
  states.every((key) => state[key] === undefined || stateOf(element, key) === state[key]);

const states = ['level', 'checked', 'pressed', 'selected', 'expanded', 'disabled'] as const;

/** What a state of an element is; undefined for one that has no such state. */
export function stateOf(element: Element, key: keyof RoleState): unknown {
  switch (key) {
    case 'level':
      return levelOf(element);
    case 'checked':
      return checkedOf(element);
    case 'pressed':
      return triState(element.getAttribute('aria-pressed'));
    case 'selected':
      return selectedOf(element);
    case 'expanded':
      return expandedOf(element);
    case 'disabled':
      return whyDisabled(element) !== undefined;
    default:
      return undefined;
  }
}

const triState = (value: string | null): boolean | 'mixed' | undefined =>
  value === 'mixed' ? 'mixed' : value === null ? undefined : value === 'true';

/** Whether an element is checked, by ARIA or by itself; undefined for one that cannot be. */
export function checkedOf(element: Element): boolean | 'mixed' | undefined {
  const input = element as Partial<HTMLInputElement>;
  if (input.indeterminate) return 'mixed';
  return triState(element.getAttribute('aria-checked')) ?? input.checked;
}

// An element that has no such state is neither: nobody is told that a plain button is not expanded.
const selectedOf = (element: Element): boolean | undefined =>
  element.localName === 'option'
    ? (element as HTMLOptionElement).selected
    : (triState(element.getAttribute('aria-selected')) as boolean | undefined);

const expandedOf = (element: Element): boolean | undefined =>
  element.localName === 'summary'
    ? (element.parentElement?.hasAttribute('open') ?? false)
    : (triState(element.getAttribute('aria-expanded')) as boolean | undefined);

const disabling = /^(button|input|select|textarea|option|optgroup|fieldset)$/;

/** Why an element is disabled, as a person is told; undefined for one that is not. */
export const whyDisabled = (element: Element): string | undefined =>
  whyUnusable(element) ??
  (element.closest('[aria-disabled="true"]') ? 'it has aria-disabled="true"' : undefined);

/** Why an element cannot be used: one that only says it is disabled (by ARIA) gets every click there is. */
export function whyUnusable(element: Element): string | undefined {
  if (disabling.test(element.localName) && element.hasAttribute('disabled')) return 'it is disabled';
  const set = disabling.test(element.localName) ? element.closest('fieldset[disabled]') : null;
  if (set && set !== element && !set.querySelector(':scope > legend')?.contains(element)) {
    return 'the fieldset around it is disabled';
  }
  return undefined;
}
