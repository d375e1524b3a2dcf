import { nearest } from '../core/near';
import { list } from '../core/print';
import { describe, isField, locatorFor } from './describe';
import { looking } from './looking';
import { foldSpace, quoteCode, type Locator, type RoleState } from './locators';
import { nameOrTextOf, textIn, textOf } from './names';
import { labelElementsOf } from './labels';
import { fieldSelector, locate, type View } from './query';
import { isRole, roleNamed, roleOf, rolesLike } from './roles';
import { stateOf } from './states';

/** What the page has that is like what was looked for. */
export function whatIsThere(locator: Locator, view: View): { there: string[]; nearest?: string | undefined } {
  const [root] = view.roots;
  return root ? looking(root.ownerDocument, () => lookAround(locator, view, false)) : { there: [] };
}

/** @param mayCome true where what is sought may not be rendered yet: then the only one of its kind is no guess */
export function lookAround(
  locator: Locator,
  view: View,
  mayCome: boolean,
): { there: string[]; nearest?: string | undefined } {
  const { sought } = locator;
  if (sought.by === 'part') return { there: [] };
  let found: Element[] | undefined;
  const all = () => (found ??= locate({ ...locator, sought: { by: 'css', selector: '*' } }, view));
  const alike = alikeTo(locator, view, all);
  if (alike.length === 0 && all().length === 0)
    return { there: [locator.outer ? 'There is nothing to look inside of.' : 'The page is empty.'] };
  const wanted = wordsOf(locator);
  const close = wanted === undefined ? undefined : findClose(wanted, alike, all, sought);
  const shown = close && !alike.includes(close) ? [close, ...alike] : alike;
  const there =
    shown.length > 0
      ? [`There is ${names(shown, sought)}.`]
      : [`There is no ${kindOf(locator)} at all. There is ${names(all(), sought, isTelling)}.`];
  if (sought.by === 'role' && !isRole(sought.role)) {
    const meant = nearest(sought.role, rolesLike(sought.role));
    there.unshift(`"${sought.role}" is no role of ARIA${meant ? `; "${meant}" is` : ''}.`);
  }
  const guess = close ?? (alike.length === 1 && !mayCome ? alike[0] : undefined);
  return { there, nearest: guess && printGuess(guess, sought) };
}

function printGuess(guess: Element, sought: Locator['sought']): string {
  if (sought.by === 'testId') return `testId(${quoteCode(wordsOn(guess, sought))})`;
  if (sought.by !== 'role' || roleOf(guess) !== roleNamed(sought.role)) return locatorFor(guess);
  // With their real state, not the one that was asked for.
  const state = (Object.keys(sought.state) as Exclude<keyof RoleState, 'hidden'>[]).flatMap((key) => {
    const value = stateOf(guess, key);
    if (value === undefined) return [];
    return [`${key}: ${typeof value === 'string' ? quoteCode(value) : String(value)}`];
  });
  if (state.length === 0) return locatorFor(guess);
  const heard = nameOrTextOf(guess);
  const args = [quoteCode(sought.role), ...(heard ? [quoteCode(heard)] : []), `{ ${state.join(', ')} }`];
  return `role(${args.join(', ')})`;
}

/** What is of the kind that was looked for, whatever it is called. */
function alikeTo(locator: Locator, view: View, all: () => Element[]): Element[] {
  const { sought } = locator;
  switch (sought.by) {
    case 'role':
      return locate(
        { ...locator, sought: { by: 'role', role: sought.role, name: undefined, state: {} } },
        view,
      );
    case 'label':
      return locate({ ...locator, sought: { by: 'css', selector: fieldSelector } }, view);
    case 'testId':
      return locate({ ...locator, sought: { by: 'css', selector: '[data-testid]' } }, view);
    case 'text':
      return all().filter((element) => element.childElementCount === 0 && textOf(element) !== '');
    default:
      return [];
  }
}

// Elements of the same kind come first. The rest of the page is listed only if none of them is close.
function findClose(
  wanted: string,
  alike: readonly Element[],
  all: () => readonly Element[],
  sought: Locator['sought'],
): Element | undefined {
  const most = wanted.length * 4 + 60;
  // Reading an element's text is fast; computing its name is not.
  const mayBe = (element: Element) => textIn(element).length <= most * 2;
  const words = (element: Element) => wordsOn(element, sought);
  const found = nearest(wanted, alike.filter(mayBe), words);
  if (found) return found;
  const compared = new Set(alike);
  const others = all()
    .filter((element) => !compared.has(element) && element.childElementCount < 8 && mayBe(element))
    .slice(0, 3000);
  return nearest(wanted, others, (element) => (isTelling(element) ? words(element) : ''));
}

// The words to compare with those that were asked for.
function wordsOn(element: Element, { by }: Locator['sought']): string {
  if (by === 'testId') return element.getAttribute('data-testid') ?? '';
  return by === 'text' && element.childElementCount === 0 ? textOf(element) : labelOrText(element);
}

function labelOrText(element: Element): string {
  const [label] = isField(element) ? labelElementsOf(element) : [];
  return label ? textOf(label) : nameOrTextOf(element) || textOf(element);
}
const isTelling = (element: Element) => nameOrTextOf(element) !== '';

const kindOf = ({ sought }: Locator) =>
  sought.by === 'role'
    ? sought.role
    : sought.by === 'label'
      ? 'field'
      : sought.by === 'testId'
        ? 'data-testid'
        : 'such element';

function wordsOf({ sought }: Locator): string | undefined {
  const words = sought.by === 'role' ? sought.name : 'words' in sought ? sought.words : undefined;
  return words === undefined ? undefined : typeof words === 'string' ? foldSpace(words) : words.source;
}

/** The first few of some elements by their names, and how many more there are. */
function names(
  elements: readonly Element[],
  sought: Locator['sought'],
  isTold: (element: Element) => boolean = () => true,
): string {
  const told = new Set<string>();
  let left = 0;
  for (const [at, element] of elements.entries()) {
    // Elements that are not listed are only counted. In a long list duplicates count too.
    if (told.size > mostNames && at > mostRead) {
      left = elements.length - at;
      break;
    }
    if (isTold(element)) told.add(nameWithArticle(element, sought));
  }
  if (told.size === 0) return 'only text';
  const shown = [...told];
  return left === 0
    ? list(shown, mostNames)
    : `${shown.slice(0, mostNames).join(', ')} and ${shown.length - mostNames + left} more`;
}

const mostNames = 6;
const mostRead = 200;

function nameWithArticle(element: Element, sought: Locator['sought']): string {
  const told = describe(element);
  if (sought.by === 'testId' && element.hasAttribute('data-testid')) {
    return `"${wordsOn(element, sought)}" on ${told}`;
  }
  return told.startsWith('<') ? told : `${/^[aeiou]/.test(told) ? 'an' : 'a'} ${told}`;
}
