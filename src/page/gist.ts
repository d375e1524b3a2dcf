import { describe } from './describe';
import { isLeftOut } from './hidden';
import { textOf } from './names';
import { roleOf } from './roles';

// From what a person is told first to what they find by looking.
const order = ['alert', 'alertdialog', 'dialog', 'status', 'progressbar', 'heading', 'table', 'list', 'form', 'button', 'link', 'textbox'];
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
    for (const child of element.children) visit(child);
  };
  for (const child of root.children) visit(child);
  const text = textOf(root);
  if (found.length === 0 && text) found.push([0, `text ${JSON.stringify(text.length > 50 ? `${text.slice(0, 49)}…` : text)}`]);
  return found.sort((a, b) => a[0] - b[0]).map(([, told]) => told);
}

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
  return gone.length > 0 ? `no more ${gather(gone)}` : after.length > 0 ? `still ${after[0]}` : '(nothing)';
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
  return times.slice(0, 2).join(', ') + (times.length > 2 ? ', …' : '');
};
