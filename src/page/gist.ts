import { describe } from './describe';
import { isLeftOut, knowingStyles } from './hidden';
import { textOf } from './names';
import { roleOf } from './roles';

// From what a person is told first to what they find by looking.
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
];
const telling = new Set(order);

/** Something there is to tell about a page; worded only when it is told. */
export interface Line {
  /** From what a person is told first to what they find by looking. */
  readonly rank: number;
  told(): string;
}

/** What there is to tell about what is in an element. */
export const gistOf = (root: Element): Line[] => knowingStyles(root.ownerDocument, () => readGist(root));

function readGist(root: Element): Line[] {
  const found: Line[] = [];
  // By a list: a page may be nested more deeply than calls can be.
  const next: Element[] = [];
  const push = (element: Element) => {
    for (let at = element.lastElementChild; at; at = at.previousElementSibling) next.push(at);
  };
  push(root);
  for (let element = next.pop(); element; element = next.pop()) {
    if (isLeftOut(element)) continue;
    const line = lineOf(element);
    if (line) found.push(line);
    push(element);
  }
  return found;
}

/** What there is to tell about one element itself; undefined where that is nothing. */
export function lineOf(element: Element): Line | undefined {
  const role = roleOf(element) ?? '';
  if (telling.has(role)) return makeLine(order.indexOf(role), () => tell(element, role));
  const part = element.getAttribute('data-part');
  if (part) return makeLine(3.5, () => `stub ${part}`);
  return isLine(element) ? makeLine(order.length, () => `text ${quote(textOf(element))}`) : undefined;
}

// The page goes on: what a line says is what it said when it was looked at.
function makeLine(rank: number, word: () => string): Line {
  let said: string | undefined;
  return { rank, told: () => (said ??= word()) };
}

// A line of text that stands for itself, not the words on something that is told of anyway.
const isLine = (element: Element) =>
  element.childElementCount === 0 &&
  element.localName !== 'label' &&
  textOf(element) !== '' &&
  !isInsideTold(element);

const toldTags = new Set(['button', 'a', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6']);

// By hand: a long selector takes a simulated page ten times as long.
function isInsideTold(element: Element): boolean {
  for (let at = element.parentElement; at; at = at.parentElement)
    if (toldTags.has(at.localName) || /^(alert|status)$/.test(at.getAttribute('role') ?? '')) return true;
  return false;
}

const quote = (text: string) => JSON.stringify(text.length > 50 ? `${text.slice(0, 49)}…` : text);

function tell(element: Element, role: string): string {
  if (role === 'list') return `list of ${element.childElementCount}`;
  if (role === 'table') return `table of ${element.querySelectorAll('tbody tr').length} rows`;
  return describe(element);
}

/** What is new since the page was last looked at, in a few words. */
export function tellNews(before: readonly Line[], after: readonly Line[]): string {
  const news = firstNews(before, after);
  if (news) return news;
  const gone = firstNews(after, before);
  return gone ? `no more ${gone}` : 'looks as before';
}

/** The most telling line that is new, and whether there is more; no line below it is worded but to tell that. */
function firstNews(before: readonly Line[], after: readonly Line[]): string | undefined {
  const [old, now] = [byRank(before), byRank(after)];
  let first: string | undefined;
  for (const rank of [...now.keys()].sort((a, b) => a - b)) {
    const [mine, theirs] = [now.get(rank)!, old.get(rank) ?? []];
    if (first !== undefined && mine.length > theirs.length) return `${first}, …`;
    const news = tally(newsIn(theirs, mine));
    if (first !== undefined && news.size > 0) return `${first}, …`;
    if (news.size === 0) continue;
    const [[told, times] = ['', 0]] = news;
    first = times > 1 ? `${times} × ${told}` : told;
    if (news.size > 1) return `${first}, …`;
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

function newsIn(before: readonly Line[], after: readonly Line[]): string[] {
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
