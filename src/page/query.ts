import { refuse } from './errors';
import { namedByContent } from './aria';
import { renderedIn } from './flat-tree';
import { mayHide, whyHidden } from './hidden';
import {
  fits,
  foldSpace,
  isLocator,
  isWords,
  subjectMark,
  type Locator,
  type RoleState,
  type Words,
} from './locators';
import { looking, onceFor, scan } from './looking';
import { altersNames, nameOrTextOf, nameOf, textIn, textOf } from './names';
import { labelElementsOf } from './labels';
import { saidByText, roleNamed, roleOf, tagsOf } from './roles';
import { stateNames, stateOf } from './states';

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
  /** The stubs on the page, which have no inside of their own; absent where nobody needs them. */
  stubs?(): readonly StubShown[];
}

/** Every element that a locator fits, in page order; `anyway` includes what nobody perceives. */
export function locate(locator: Locator, view: View, anyway = false): Element[] {
  const [root] = view.roots;
  return root ? looking(root.ownerDocument, () => locateKnowing(locator, view, anyway)) : [];
}

function locateKnowing(locator: Locator, view: View, anyway: boolean): Element[] {
  const fitting = candidates(locator, view);
  if (anyway || locator.hidden || fitting.length === 0) return fitting;
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
  const within = (root: Element) => search(locator, root, !outer && isOutside(root));
  return roots.length === 1 ? within(roots[0]!) : [...new Set(roots.flatMap(within))];
}

/** @param itself true where the root may be what is sought itself */
function search({ sought }: Locator, root: Element, itself: boolean): Element[] {
  switch (sought.by) {
    case 'role': {
      const { name, state } = sought;
      const role = roleNamed(sought.role);
      const mayFit = quickLook(root, role, name);
      return mayHaveRole(root, role, itself).filter(
        (element) =>
          mayFit(element) &&
          roleOf(element) === role &&
          fitsState(element, state) &&
          (name === undefined || fits(name, nameOrTextOf(element))),
      );
    }
    case 'label':
      return queryAll(root, fieldSelector, itself).filter((element) => hasLabel(element, sought.words));
    case 'text':
      return searchText(root, sought, itself);
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

// If nothing on the page affects names, an element's name is its text without extra white space. Checking
// that once for the page saves computing the names of a thousand rows.
function quickLook(root: Element, role: string, name: Words | undefined): (element: Element) => boolean {
  const made = namedByContent.has(role) || saidByText.has(role);
  if (typeof name !== 'string' || !made || altersNames(root)) return () => true;
  const wanted = squeeze(name);
  return (element) => squeeze(textIn(element)) === wanted;
}

const squeeze = (text: string) => text.replace(/\s+/g, '');

// Elements that a subject rendered elsewhere belong to it. Its own container does not.
const isOutside = (root: Element): boolean =>
  onceFor('outside', root, () => root.parentElement !== null && !root.hasAttribute(subjectMark));

const queryAll = (root: Element, selector: string, itself: boolean): Element[] => {
  if (selector === '*') return scan(root).elements.slice(itself ? 0 : 1);
  const below = [...root.querySelectorAll(selector)];
  const { elements, hasShadows } = scan(root);
  // What stands in shadow roots and slots is rendered in an element, and is none of its children.
  if (hasShadows) below.push(...elements.filter((one) => !root.contains(one) && one.matches(selector)));
  return itself && root.matches(selector) ? [root, ...below] : below;
};

// Elements that may have a role: by their tag or by the attribute.
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

// A label matches by its visible text or by the name it gives.
const hasLabel = (element: Element, words: string | RegExp) =>
  labelElementsOf(element).some((label) => fits(words, ownText(label))) || fits(words, nameOf(element));

// The text of a label that contains its field, without the content of the field.
const ownText = (label: Element) =>
  foldSpace(
    [...label.childNodes]
      .filter((node) => !/^(SELECT|TEXTAREA|INPUT)$/.test(node.nodeName))
      .map((node) => node.textContent ?? '')
      .join(''),
  );

/** All text of a root without white space; found out once for many searches of the same page. */
const squeezedText = (root: Element): string => onceFor('squeezed', root, (one) => squeeze(textIn(one)));

// Without white space: a line break keeps words apart that have no space between them.
const lacksText = (root: Element, squeezed: string): boolean =>
  !squeezedText(root).includes(squeezed) && !scan(root).hasShadows;

type SoughtWords = Extract<Locator['sought'], { readonly words: Words }>;
const squeezedWords = new WeakMap<SoughtWords, string>();

/** The words that are sought without white space; found out once, since a hundred pages may be asked. */
function squeezedOf(sought: SoughtWords, words: string): string {
  let squeezed = squeezedWords.get(sought);
  if (squeezed === undefined) squeezedWords.set(sought, (squeezed = squeeze(words)));
  return squeezed;
}

/** True where one look at a page shows that nothing fits the locator; otherwise a search has to find out. */
export function lacks({ outer, sought }: Locator, { roots }: View): boolean {
  if (outer || sought.by !== 'text' || typeof sought.words !== 'string') return false;
  const squeezed = squeezedOf(sought, sought.words);
  return roots.every((root) => lacksText(root, squeezed));
}

function searchText(root: Element, sought: SoughtWords, itself: boolean): Element[] {
  const found: Element[] = [];
  const { words } = sought;
  const squeezed = typeof words === 'string' ? squeezedOf(sought, words) : undefined;
  // The whole text first: most searches end here.
  if (squeezed !== undefined && lacksText(root, squeezed)) return found;
  const wanted = altersNames(root) ? undefined : squeezed;
  const visit = (element: Element): boolean => {
    // If the words are nowhere below an element, its children need no check. That skips most of a page.
    if (wanted !== undefined && !squeeze(textIn(element)).includes(wanted)) return false;
    let inner = false;
    const visitChild = (child: Element) => {
      if (child.localName !== 'script' && child.localName !== 'style') inner = visit(child) || inner;
    };
    const rendered = renderedIn(element);
    if (rendered) rendered.forEach(visitChild);
    else
      for (let child = element.firstElementChild; child; child = child.nextElementSibling) visitChild(child);
    if (inner || !element.firstChild || !fits(words, textOf(element))) return inner;
    found.push(element);
    return true;
  };
  // A subject may be a bare text, directly in its container.
  if (itself || (root.hasAttribute(subjectMark) && root.parentElement)) visit(root);
  else for (let child = root.firstElementChild; child; child = child.nextElementSibling) visit(child);
  return found;
}

/** True if this one element matches the locator. For a text, also if something inside it does. */
export function fitsAt(element: Element, { sought, hidden }: Locator): boolean {
  const fitsSought = () => {
    switch (sought.by) {
      case 'role':
        return (
          roleOf(element) === roleNamed(sought.role) &&
          fitsState(element, sought.state) &&
          (sought.name === undefined || fits(sought.name, nameOrTextOf(element)))
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
  stateNames.every((key) => {
    const wanted = state[key];
    return wanted === undefined || isState(wanted, stateOf(element, key));
  });

const isState = (wanted: unknown, is: unknown): boolean =>
  wanted === is || (typeof is === 'string' && isWords(wanted) && fits(wanted, is));
