import { describe } from './describe';
import { isLeftOut } from './hidden';
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

/** What there is to tell about a page, most telling first. */
export function gistOf(root: Element): string[] {
  const found: [rank: number, told: string][] = [];
  const visit = (element: Element) => {
    if (isLeftOut(element)) return;
    const role = roleOf(element) ?? '';
    const part = element.getAttribute('data-part');
    if (telling.has(role)) found.push([order.indexOf(role), tell(element, role)]);
    else if (part) found.push([3.5, `stub ${part}`]);
    else if (isLine(element)) found.push([order.length, `text ${quote(textOf(element))}`]);
    for (const child of element.children) visit(child);
  };
  for (const child of root.children) visit(child);
  return found.sort((a, b) => a[0] - b[0]).map(([, told]) => told);
}

// A line of text that stands for itself, not the words on something that is told of anyway.
const isLine = (element: Element) =>
  element.childElementCount === 0 &&
  element.localName !== 'label' &&
  textOf(element) !== '' &&
  !element.parentElement?.closest('button,a,h1,h2,h3,h4,h5,h6,[role=alert],[role=status]');

const quote = (text: string) => JSON.stringify(text.length > 50 ? `${text.slice(0, 49)}…` : text);

function tell(element: Element, role: string): string {
  if (role === 'list') return `list of ${element.children.length}`;
  if (role === 'table') return `table of ${element.querySelectorAll('tbody tr').length} rows`;
  return describe(element);
}

/** What is new since the page was last looked at, in a few words. */
export function tellNews(before: readonly string[], after: readonly string[]): string {
  const old = tally(before);
  const news = after.filter((told) => !take(old, told));
  if (news.length > 0) return gather(news);
  const gone = [...old].flatMap(([told, times]) => Array<string>(times).fill(told));
  return gone.length > 0 ? `no more ${gather(gone)}` : 'looks as before';
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

const gather = (told: readonly string[]): string => {
  const times = [...tally(told)].map(([one, n]) => (n > 1 ? `${n} × ${one}` : one));
  return times[0]! + (times.length > 1 ? ', …' : '');
};
