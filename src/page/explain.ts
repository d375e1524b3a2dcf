import { type SimulacraError } from '../core/errors/error';
import { escaped } from '../core/print';
import { describe, locatorFor } from './describe';
import { explain, type Pending } from './errors';
import { whyHidden } from './hidden';
import { looking } from './looking';
import { foldSpace, isLocator, phraseLocator, printLocator, type Locator } from './locators';
import { textOf } from './names';
import { locate, type View } from './query';
import { isRole, roleOf, selectorOf } from './roles';
import { lookAround } from './nearby';

/** What a message can say beyond the page: what went before it. */
export interface Background {
  readonly chronicle: { toString(): string };
  readonly calledAt: Error | undefined;
  /** Answers that have not come yet, and timers that have not run. */
  readonly pending?: () => readonly Pending[];
  /** What explains that an answer has changed nothing; none where it has, or where nothing was answered. */
  readonly still?: () => readonly string[];
  /** Shows the page at earlier moments, newest first, until the callback says stop. */
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
    explainStubbed(locator, view, background) ??
    explainHidden(locator, view, background, sought) ??
    explainOtherTag(locator, view, background, sought) ??
    explainSplit(locator, view, background, sought) ??
    explain('SIM-FIND-NONE', noneFields(locator, view, background), background)
  );
}

function noneFields(locator: Locator, view: View, background: Background) {
  const stubs = (view.stubs?.() ?? []).map(({ name, instead }) => ({ name, instead }));
  const pending = background.pending?.() ?? [];
  const { there, nearest } = lookAround(locator, view, stubs.length > 0 || pending.length > 0);
  const still = background.still?.() ?? [];
  return { what: phraseLocator(locator, view.nameOf), there, nearest, pending, stubs, still };
}

// If the element is sought inside a stub, that is the reason, whatever similar elements exist.
function explainStubbed(locator: Locator, view: View, background: Background) {
  const { outer } = locator;
  if (!outer) return undefined;
  const around = isLocator(outer) ? locate(outer, view, true) : [outer];
  const stub = (view.stubs?.() ?? []).find(({ elements }) =>
    around.some((element) => elements.some((own) => own.contains(element))),
  );
  if (!stub) return undefined;
  const what = phraseLocator({ ...locator, outer: undefined }, view.nameOf);
  return explain('SIM-FIND-STUBBED', { what, stub: stub.name, instead: stub.instead }, background);
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

// A heading became a <strong>: the text is still there, but not the role.
function explainOtherTag(locator: Locator, view: View, background: Background, sought: Sought) {
  const { sought: asked } = locator;
  if (asked.by !== 'role' || asked.name === undefined || !isRole(asked.role)) return undefined;
  const named = asked.name;
  // The element is there, in another state.
  if (locate({ ...locator, sought: { ...asked, state: {} } }, view).length > 0) return undefined;
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

// "Save" inside a button in another state is not a changed tag.
const sameRoleNear = (element: Element, role: string) =>
  roleOf(element) === role || element.parentElement?.closest(selectorOf(role)) != null;

function explainSplit(locator: Locator, view: View, background: Background, sought: Sought) {
  const { sought: asked } = locator;
  if (asked.by !== 'text' || typeof asked.words !== 'string') return undefined;
  const wanted = foldSpace(asked.words);
  if (!wanted) return undefined;
  // If the page's text does not contain the words, no element does.
  const squeezed = wanted.replace(/\s+/g, '');
  if (!view.roots.some(({ textContent }) => textContent.replace(/\s+/g, '').includes(squeezed)))
    return undefined;
  const pattern = new RegExp(escaped(wanted));
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
