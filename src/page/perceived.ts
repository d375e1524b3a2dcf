import { describe } from './describe';
import { isLeftOut, mayHide } from './hidden';
import { looking, scan } from './looking';
import { textOf } from './names';
import { roleOf, tagsOf } from './roles';

// Ordered from what a person notices first to what they find by looking.
const order = [
  'alert',
  'alertdialog',
  'dialog',
  'status',
  'progressbar',
  'heading',
  'table',
  'list',
  'form',
  'button',
  'link',
  'textbox',
  'searchbox',
  'combobox',
  'checkbox',
  'radio',
  'switch',
  'slider',
  'spinbutton',
  'tab',
  'img',
];
const telling = new Set(order);
/** What can have one of these roles by itself: most of a page need not be asked for its role. */
let tellingTags: ReadonlySet<string> | undefined;
const tellsByItself = (tag: string) =>
  (tellingTags ??= new Set(order.flatMap((role) => [...tagsOf(role)]))).has(tag);

/** A line about a page; worded only when it is printed. */
export interface Line {
  /** Ordered from what a person notices first to what they find by looking. */
  readonly rank: number;
  told(): string;
  /** The state it is in, printed where nothing else is new. */
  state(): string;
}

/** The lines about what is in an element. */
export const perceivedOf = (root: Element): Line[] => looking(root.ownerDocument, () => readLines(root));

const readLines = (root: Element): Line[] =>
  [...perceivedIn(root)].flatMap((element) => lineOf(element) ?? []);

/** What a person can perceive of what is in an element, in page order. */
function* perceivedIn(root: Element): Generator<Element, void, undefined> {
  if (!mayHide(root)) return yield* scan(root).elements.slice(1);
  // A list instead of recursion: a page may be nested more deeply than the call stack allows.
  const next: Element[] = [root];
  for (let element = next.pop(); element; element = next.pop()) {
    if (element !== root) {
      if (isLeftOut(element)) continue;
      yield element;
    }
    for (let at = element.lastElementChild; at; at = at.previousElementSibling) next.push(at);
  }
}

/** So many lines of a kind are compared; beyond that we only say that there are more. */
const mostTold = 200;

/** The lines about a page that has just come up; only the printed ones are worded. */
export function describeAll(roots: readonly Element[]): string {
  let rank = Infinity;
  let first: string | undefined;
  let times = 0;
  let worded = 0;
  let isMore = false;
  const add = (line: Line) => {
    if (line.rank > rank || (worded >= mostTold && line.rank === rank)) return void (isMore = true);
    if (line.rank < rank) {
      isMore ||= first !== undefined;
      [rank, first, times, worded] = [line.rank, undefined, 0, 0];
    }
    worded++;
    const told = line.told();
    first ??= told;
    if (told === first) times++;
    else isMore = true;
  };
  for (const root of roots) {
    looking(root.ownerDocument, () => {
      for (const element of perceivedIn(root)) {
        const line = tellingLine(element) ?? (isMore && rank < order.length ? undefined : textLine(element));
        if (line) add(line);
      }
    });
  }
  if (first === undefined) return 'looks as before';
  return `${times > 1 && worded < mostTold ? `${times} × ` : ''}${first}${isMore ? ', …' : ''}`;
}

/** The line about one element itself; undefined where there is nothing to say. */
export const lineOf = (element: Element): Line | undefined => tellingLine(element) ?? textLine(element);

function tellingLine(element: Element): Line | undefined {
  const mayTell = tellsByItself(element.localName) || element.hasAttribute('role');
  const role = mayTell ? (roleOf(element) ?? '') : '';
  if (telling.has(role))
    return makeLine(
      order.indexOf(role),
      () => tell(element, role),
      () => statesOf(element),
    );
  const part = element.getAttribute('data-part');
  return part
    ? makeLine(
        3.5,
        () => `stub ${part}`,
        () => element.getAttribute('data-props') ?? '',
      )
    : undefined;
}

const textLine = (element: Element): Line | undefined =>
  isLine(element) ? makeLine(order.length, () => `text ${quote(textOf(element))}`) : undefined;

// The page changes later, so each line keeps the words of the moment it was read.
function makeLine(rank: number, word: () => string, wordState = () => ''): Line {
  let said: string | undefined;
  let state: string | undefined;
  return { rank, told: () => (said ??= word()), state: () => (state ??= wordState()) };
}

// A text of its own, not the text of an element that is reported anyway.
const isLine = (element: Element) =>
  element.childElementCount === 0 &&
  element.localName !== 'label' &&
  textOf(element) !== '' &&
  !isInsideTold(element);

const toldTags = new Set(['button', 'a', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6']);

// A loop, because a long selector takes a simulated page ten times as long.
function isInsideTold(element: Element): boolean {
  for (let at = element.parentElement; at; at = at.parentElement)
    if (toldTags.has(at.localName) || /^(alert|status)$/.test(at.getAttribute('role') ?? '')) return true;
  return false;
}

const quote = (text: string) => JSON.stringify(text.length > 50 ? `${text.slice(0, 49)}…` : text);

// By the attributes, because a copy of an earlier moment has no properties.
const statesOf = (element: Element): string =>
  perceived
    .flatMap(([attribute, word]) => {
      const value = element.getAttribute(attribute);
      return value === null ? [] : [word ? word(value) : attribute];
    })
    .filter(Boolean)
    .join(' ');

const either = (is: string, isNot: string) => (value: string) =>
  value === 'true' ? is : value === 'false' ? isNot : value;
const perceived: readonly (readonly [attribute: string, word?: (value: string) => string])[] = [
  ['checked'],
  ['disabled'],
  ['aria-checked', either('checked', 'not checked')],
  ['aria-pressed', either('pressed', 'not pressed')],
  ['aria-selected', either('selected', 'not selected')],
  ['aria-expanded', either('expanded', 'collapsed')],
  ['aria-disabled', either('disabled', '')],
  ['aria-busy', either('busy', '')],
  ['aria-invalid', either('invalid', '')],
  ['aria-current', (value) => (value === 'false' ? '' : 'current')],
  ['aria-valuenow', (value) => `at ${value}`],
  ['value', (value) => value && `value ${quote(value)}`],
];

const cut = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

function tell(element: Element, role: string): string {
  if (role === 'list') return `list of ${element.childElementCount}`;
  if (role === 'table') return `table of ${element.querySelectorAll('tbody tr').length} rows`;
  return describe(element);
}

/** What is new since the page was last looked at, in a few words. */
export function describeChanges(before: readonly Line[], after: readonly Line[]): string {
  const changed = firstChange(before, after);
  if (changed) return changed;
  const gone = firstChange(after, before);
  return gone ? `no more ${gone}` : (changeOfState(before, after) ?? changeOfOrder(before, after));
}

function changeOfState(before: readonly Line[], after: readonly Line[]): string | undefined {
  const whole = (line: Line) => `${line.told()} ${cut(line.state(), 40)}`.trimEnd();
  const old = tally(before.map(whole));
  const [first, ...more] = after.map(whole).filter((told) => !take(old, told));
  return first && `${first}${more.length > 0 ? ', …' : ''}`;
}

// The same lines as before, but in another order.
function changeOfOrder(before: readonly Line[], after: readonly Line[]): string {
  const at = after.findIndex((line, place) => line.told() !== before[place]?.told());
  return at < 0 ? 'looks as before' : `in another order, from ${after[at]!.told()} on`;
}

/** The new line that says most, and whether there are others; the others are not worded. */
function firstChange(before: readonly Line[], after: readonly Line[]): string | undefined {
  const [old, now] = [byRank(before), byRank(after)];
  let first: string | undefined;
  for (const rank of [...now.keys()].sort((a, b) => a - b)) {
    const [mine, theirs] = [now.get(rank)!, old.get(rank) ?? []];
    if (first !== undefined && mine.length > theirs.length) return `${first}, …`;
    const changed = tally(changesIn(theirs, mine));
    if (first !== undefined && changed.size > 0) return `${first}, …`;
    if (changed.size === 0) continue;
    const [[told, times] = ['', 0]] = changed;
    first = times > 1 ? `${times} × ${told}` : told;
    if (changed.size > 1) return `${first}, …`;
  }
  return first;
}

function byRank(lines: readonly Line[]): Map<number, Line[]> {
  const found = new Map<number, Line[]>();
  for (const line of lines) {
    const known = found.get(line.rank);
    if (known) known.push(line);
    else found.set(line.rank, [line]);
  }
  return found;
}

function changesIn(before: readonly Line[], after: readonly Line[]): string[] {
  const old = tally(before.map((line) => line.told()));
  return after.map((line) => line.told()).filter((told) => !take(old, told));
}

function tally(told: readonly string[]): Map<string, number> {
  const times = new Map<string, number>();
  for (const one of told) times.set(one, (times.get(one) ?? 0) + 1);
  return times;
}

function take(times: Map<string, number>, told: string): boolean {
  const left = times.get(told) ?? 0;
  if (left === 0) return false;
  if (left === 1) times.delete(told);
  else times.set(told, left - 1);
  return true;
}
