import { markOf } from '../core/mark';
import { refuse } from './errors';
import { print } from '../core/print';

/** Words to compare with: the whole text, or a pattern for a part of it. */
export type Words = string | RegExp;

/** What more a role locator can ask for; the names are those of the ARIA attributes. */
export interface RoleState {
  /** Level of a heading, or of an item in lists or trees, from 1. */
  readonly level?: number;
  readonly checked?: boolean | 'mixed';
  readonly pressed?: boolean | 'mixed';
  readonly selected?: boolean;
  readonly expanded?: boolean;
  readonly disabled?: boolean;
  readonly required?: boolean;
  readonly readonly?: boolean;
  /** By `aria-invalid` or, without it, by the constraints of the field itself. */
  readonly invalid?: boolean;
  readonly current?: boolean | 'page' | 'step' | 'location' | 'date' | 'time';
  readonly busy?: boolean;
  /** How the rows are sorted by a header, as `aria-sort` says. */
  readonly sort?: 'ascending' | 'descending' | 'other' | 'none';
  /** True for the element that has the focus. */
  readonly focused?: boolean;
  /** What is said beside the name: of `aria-describedby`, `aria-description` or a title. */
  readonly description?: Words;
  /** Also what a person cannot perceive. */
  readonly hidden?: boolean;
}

/** What the other locators can ask for. */
export interface LocatorOptions {
  /** Also what a person cannot perceive. */
  readonly hidden?: boolean;
}

type Sought =
  | {
      readonly by: 'role';
      readonly role: string;
      readonly name: Words | undefined;
      readonly state: RoleState;
    }
  | { readonly by: 'label' | 'text' | 'testId'; readonly words: Words }
  | { readonly by: 'css'; readonly selector: string }
  | { readonly by: 'part'; readonly component: unknown };

/** Where something is on the page. Made by `role`, `label`, `text`, `testId`, `css` and `part`. */
export interface Locator {
  readonly simulacra: 'locator';
  readonly sought: Sought;
  readonly hidden: boolean;
  /** What the element must be inside of. */
  readonly outer: Locator | Element | undefined;
  /** The same locator, looking only inside another one, or inside an element. */
  inside(outer: Locator | Element): Locator;
}

function make(sought: Sought, hidden = false, outer?: Locator | Element): Locator {
  if (outer !== undefined && !isLocator(outer) && (outer as Partial<Element>).nodeType !== 1)
    refuseNoLocator(outer);
  return { simulacra: 'locator', sought, hidden, outer, inside: (next) => make(sought, hidden, next) };
}

/**
 * By ARIA role and accessible name. Where ARIA gives a role no name of its content (a status, an
 * alert, a list item) the words are compared with the element's text.
 *
 * @param role an ARIA role: `'button'`, `'heading'`, `'status'`
 * @param name the whole name, or a pattern for a part of it
 * @param state what else must hold: `{ level: 2 }`, `{ checked: true }`
 * @see https://www.w3.org/TR/wai-aria-1.2/#role_definitions
 * @see https://www.w3.org/TR/accname-1.2/
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': hives } });
 * expect(board).toShow(role('heading', 'Anemone', { level: 3 }));
 */
export function role(role: string, name?: Words | RoleState, state: RoleState = {}): Locator {
  if (typeof role !== 'string') refuse('SIM-WORDS', { of: 'role(…)', given: print(role), isRole: true });
  const named = isWords(name);
  if (!named && name !== undefined && typeof name !== 'object')
    refuseWords(`role(${quoteCode(role)}, …)`, name);
  const wanted = named || name === undefined ? state : name;
  return make({ by: 'role', role, name: named ? name : undefined, state: wanted }, wanted.hidden);
}

/**
 * A form field by its label, however the label is tied to it.
 *
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': hives } });
 * await board.type(label('Find a hive'), 'bor');
 * await board.eventually(() => board.requests.at(-1)?.url.endsWith('q=bor'));
 */
export const label = (words: Words, options: LocatorOptions = {}): Locator =>
  make({ by: 'label', words: checkWords('label', words) }, options.hidden);

/**
 * The innermost element with a text: the whole text as a string, a part of it as a pattern. White
 * space is folded.
 *
 * @example
 * const card = await isolate(HiveCard, { props: { hive: hives[0] } });
 * expect(card).toShow(text(/31.2/));
 */
export const text = (words: Words, options: LocatorOptions = {}): Locator =>
  make({ by: 'text', words: checkWords('text', words) }, options.hidden);

/**
 * By the attribute `data-testid`.
 *
 * @example
 * const gate = await isolate(YardGate, { provide: [[SessionContext, standIn<Session>({ keeper: null })]] });
 * expect(gate).not.toShow(testId('keeper'));
 */
export const testId = (words: Words, options: LocatorOptions = {}): Locator =>
  make({ by: 'testId', words: checkWords('testId', words) }, options.hidden);

/**
 * By a CSS selector.
 *
 * @see https://www.w3.org/TR/selectors-4/
 * @example
 * const card = await isolate(HiveCard, { props: { hive: hives[0] } });
 * expect(card).toShow(css('article'));
 */
export const css = (selector: string, options: LocatorOptions = {}): Locator =>
  make({ by: 'css', selector }, options.hidden);

/**
 * What a child component has rendered: the component itself or its stub.
 *
 * @param component the component, or its name
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, stub: [HiveCard], network: { 'GET /api/hives': hives } });
 * expect(board).toShow(part(HiveCard), { times: 3 });
 */
export const part = (component: unknown, options: LocatorOptions = {}): Locator =>
  make({ by: 'part', component }, options.hidden);

/** True for what the functions of this file return. */
export const isLocator = (value: unknown): value is Locator => markOf(value) === 'locator';

/** @throws SIM-LOCATOR for anything that is no locator */
export function refuseNoLocator(value: unknown): asserts value is Locator {
  if (isLocator(value)) return;
  const guess = typeof value === 'string' ? `text(${JSON.stringify(value)})` : "role('button', …)";
  refuse('SIM-LOCATOR', { value, given: print(value), nearest: guess });
}

/** True for words to compare with. */
export const isWords = (value: unknown): value is Words =>
  typeof value === 'string' || value instanceof RegExp;

function checkWords(of: string, words: Words): Words {
  return isWords(words) ? words : refuseWords(`${of}(…)`, words);
}

/** @throws SIM-WORDS for what nobody can compare a text with */
function refuseWords(of: string, value: unknown): never {
  return refuse('SIM-WORDS', {
    of,
    given: print(value),
    isLevel: /heading/.test(of) && typeof value === 'number',
  });
}

/** True where a text is what the words ask for. */
export const fits = (words: Words, text: string): boolean =>
  typeof words === 'string'
    ? foldSpace(words) === text
    : new RegExp(words, words.flags.replace(/[gy]/g, '')).test(text);

/** Text as a person reads it: white space folded. */
export const foldSpace = (text: string): string => text.replace(/\s+/g, ' ').trim();

const quote = (words: Words) => (typeof words === 'string' ? JSON.stringify(words) : String(words));
/** Words as the code that says them. */
export const quoteCode = (words: Words): string =>
  typeof words === 'string' ? `'${words.replace(/\\/g, '\\\\').replace(/'/g, "\\'")}'` : String(words);

/** A locator as the code that makes it. */
export function printLocator(
  { sought, hidden, outer }: Locator,
  nameOf: (component: unknown) => string,
): string {
  const more = hidden ? ', { hidden: true }' : '';
  const own = printSought(sought, more, nameOf);
  if (!outer) return own;
  return `${own}.inside(${isLocator(outer) ? printLocator(outer, nameOf) : `<${outer.localName}>`})`;
}

function printSought(sought: Sought, more: string, nameOf: (component: unknown) => string): string {
  switch (sought.by) {
    case 'role': {
      const state = Object.entries(sought.state).map(([key, value]) => `${key}: ${print(value)}`);
      const args = [quoteCode(sought.role), ...(sought.name === undefined ? [] : [quoteCode(sought.name)])];
      return `role(${[...args, ...(state.length ? [`{ ${state.join(', ')} }`] : [])].join(', ')})`;
    }
    case 'css':
      return `css(${quoteCode(sought.selector)}${more})`;
    case 'part':
      return `part(${nameOf(sought.component)}${more})`;
    case 'label':
    case 'text':
    case 'testId':
      return `${sought.by}(${quoteCode(sought.words)}${more})`;
    default:
      return sought satisfies never;
  }
}

/** A locator as the end of the sentence "Nothing on the page …". */
export function phraseLocator({ sought, outer }: Locator, nameOf: (component: unknown) => string): string {
  const inside = !outer
    ? ''
    : ` inside ${isLocator(outer) ? printLocator(outer, nameOf) : `<${outer.localName}>`}`;
  return phraseSought(sought, nameOf) + inside;
}

function phraseSought(sought: Sought, nameOf: (component: unknown) => string): string {
  switch (sought.by) {
    case 'role': {
      const state = Object.entries(sought.state).filter(([key]) => key !== 'hidden');
      const more = state.map(([key, value]) => ` and ${key} ${print(value)}`).join('');
      const name = sought.name === undefined ? '' : ` with the name ${quote(sought.name)}`;
      return `has the role "${sought.role}"${name}${more}`;
    }
    case 'label':
      return `has the label ${quote(sought.words)}`;
    case 'text':
      return `has the text ${quote(sought.words)}`;
    case 'testId':
      return `has the data-testid ${quote(sought.words)}`;
    case 'css':
      return `matches the selector ${JSON.stringify(sought.selector)}`;
    case 'part':
      return `is a ${nameOf(sought.component)}`;
    default:
      return sought satisfies never;
  }
}

/** What marks the element a subject is rendered into. */
export const subjectMark = 'data-subject';
