import { type SimulacraError } from '../core/errors/error';
import { explain } from './errors';
import { nearest } from '../core/near';
import { list } from '../core/print';
import { describe, isField, locatorFor } from './describe';
import { whyHidden } from './hidden';
import { looking } from './looking';
import { foldSpace, phraseLocator, printLocator, type Locator } from './locators';
import { heardOf, labelElementsOf, textIn, textOf } from './names';
import { fieldSelector, locate, type View } from './query';
import { knownRoles, roleOf, selectorOf } from './roles';

/** What a message can tell beyond the page: what went before it. */
export interface Background {
  readonly chronicle: { toString(): string };
  readonly calledAt: Error | undefined;
  /** Shows the page at earlier moments, newest first, until it is told to stop. */
  goBack(look: (frame: Element) => boolean): void;
}

/** Words why a locator found nothing, by the nearest thing to it on the page. */
export function explainNone(locator: Locator, view: View, background: Background): SimulacraError {
  const [root] = view.roots;
  const find = () => explainLooking(locator, view, background);
  return root ? looking(root.ownerDocument, find) : find();
}

function explainLooking(locator: Locator, view: View, background: Background): SimulacraError {
  const what = phraseLocator(locator, view.nameOf);
  const sought = { what };
  return (
    explainHidden(locator, view, background, sought) ??
    explainOtherTag(locator, view, background, sought) ??
    explainSplit(locator, view, background, sought) ??
    explain('SIM-FIND-NONE', { ...sought, ...whatIsThere(locator, view) }, background)
  );
}

interface Sought {
  readonly what: string;
}

function explainHidden(locator: Locator, view: View, background: Background, sought: Sought) {
  const [element] = locate(locator, view, true);
  const why = element && whyHidden(element, true);
  if (!element || !why) return undefined;
  const nearest = printLocator({ ...locator, hidden: true, sought: withHidden(locator.sought) }, view.nameOf);
  return explain('SIM-FIND-HIDDEN', { ...sought, found: describe(element), why, nearest }, background);
}

const withHidden = (sought: Locator['sought']): Locator['sought'] =>
  sought.by === 'role' ? { ...sought, state: { ...sought.state, hidden: true } } : sought;

// A heading that became a <strong>: the words stayed, what they are did not.
function explainOtherTag(locator: Locator, view: View, background: Background, sought: Sought) {
  const { sought: asked } = locator;
  if (asked.by !== 'role' || asked.name === undefined || !knownRoles().includes(asked.role)) return undefined;
  const named = asked.name;
  const [element] = locate({ ...locator, sought: { by: 'text', words: named } }, view);
  if (!element || sameRoleNear(element, asked.role)) return undefined;
  const role = roleOf(element);
  let was: string | undefined;
  background.goBack((frame) => {
    const [found] = locate({ ...locator, outer: undefined }, { ...view, roots: [frame] });
    was = found && `<${found.localName}>, ${describe(found)}`;
    return found !== undefined;
  });
  return explain(
    'SIM-FIND-TAG',
    {
      ...sought,
      text: textOf(element),
      element: `<${element.localName}>`,
      role: role ? `has the role "${role}"` : 'has no role',
      was,
    },
    background,
  );
}

// "Save" inside a button of another state is no changed tag.
const sameRoleNear = (element: Element, role: string) =>
  roleOf(element) === role || element.parentElement?.closest(selectorOf(role)) != null;

function explainSplit(locator: Locator, view: View, background: Background, sought: Sought) {
  const { sought: asked } = locator;
  if (asked.by !== 'text' || typeof asked.words !== 'string') return undefined;
  const wanted = foldSpace(asked.words);
  if (!wanted) return undefined;
  // Words that are nowhere in the text of the page are in no element of it.
  const squeezed = wanted.replace(/\s+/g, '');
  if (!view.roots.some(({ textContent }) => textContent.replace(/\s+/g, '').includes(squeezed)))
    return undefined;
  const pattern = new RegExp(wanted.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  const [element] = locate({ ...locator, sought: { by: 'text', words: pattern } }, view);
  if (!element) return undefined;
  const pieces = piecesOf(element).filter((piece) => piece.text !== '');
  const whole = pieces.some(({ text }) => text.includes(wanted));
  const fields = {
    ...sought,
    text: wanted,
    whole: textOf(element),
    element: `<${element.localName}>`,
    pieces: whole ? [] : pieces.map(({ text, tag }) => `${tag}${JSON.stringify(text)}`),
    nearest: `text(${String(pattern)})`,
  };
  return explain('SIM-FIND-SPLIT', fields, background);
}

const piecesOf = (element: Element) =>
  [...element.childNodes].map((node) => ({
    text: foldSpace(node.textContent ?? ''),
    tag: node.nodeType === 1 ? `<${(node as Element).localName}> ` : '',
  }));

/** What the page has that is like what was looked for. */
export function whatIsThere(locator: Locator, view: View): { there: string[]; nearest?: string | undefined } {
  const [root] = view.roots;
  return root ? looking(root.ownerDocument, () => lookAround(locator, view)) : { there: [] };
}

function lookAround(locator: Locator, view: View): { there: string[]; nearest?: string | undefined } {
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
  if (sought.by === 'role' && !knownRoles().includes(sought.role)) {
    const meant = nearest(sought.role, knownRoles());
    there.unshift(`"${sought.role}" is no role of ARIA${meant ? `; "${meant}" is` : ''}.`);
  }
  const guess = close ?? (alike.length === 1 ? alike[0] : undefined);
  return {
    there,
    nearest: guess && (sought.by === 'testId' ? `testId('${wordsOn(guess, sought)}')` : locatorFor(guess)),
  };
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

// What is of the kind that was looked for comes first; the rest of the page only where none of it is close.
function findClose(
  wanted: string,
  alike: readonly Element[],
  all: () => readonly Element[],
  sought: Locator['sought'],
): Element | undefined {
  const most = wanted.length * 4 + 60;
  // The text an element is made of is quick to have; its name is not.
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

// What a person would compare with the words that were looked for.
function wordsOn(element: Element, { by }: Locator['sought']): string {
  if (by === 'testId') return element.getAttribute('data-testid') ?? '';
  return by === 'text' && element.childElementCount === 0 ? textOf(element) : heardOrText(element);
}

function heardOrText(element: Element): string {
  const [label] = isField(element) ? labelElementsOf(element) : [];
  return label ? textOf(label) : heardOf(element) || textOf(element);
}
const isTelling = (element: Element) => heardOf(element) !== '';

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
    // What is not shown is only counted, and in a long list not even told apart.
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

/** Words why one was asked for and several are there. */
export function explainMany(
  locator: Locator,
  view: View,
  found: readonly Element[],
  background: Background,
): SimulacraError {
  const what = phraseLocator(locator, view.nameOf);
  const fields = {
    what,
    found: found.map((element, at) => `${at + 1}.  ${describe(element)}${placeOf(element)}`),
    nearest: narrower(locator, view, found),
  };
  return explain('SIM-FIND-MANY', fields, background);
}

function placeOf(element: Element): string {
  const around = element.parentElement?.closest('article,section,li,tr,dialog,form,[data-part]');
  return around && describe(around) ? `   in ${describe(around)}` : '';
}

function narrower(locator: Locator, view: View, found: readonly Element[]): string | undefined {
  const around = found.map((element) =>
    element.parentElement?.closest('article,section,li,tr,dialog,[data-part]'),
  );
  const first = around[0];
  if (!first || locator.outer || around.every((other) => other === first)) return undefined;
  return `${printLocator(locator, view.nameOf)}.inside(${locatorFor(first)})`;
}
