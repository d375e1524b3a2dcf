import { pause, startTimer } from '../../core/host';
import { isOpenPopover } from '../features/top-layer';
import { isSimulated } from '../styles';

/** How long a page may take to fire an event, in milliseconds. A page in the background has no frames. */
const longest = 200;

const isOpen = (element: Element): boolean =>
  element.hasAttribute('popover') ? isOpenPopover(element) : element.hasAttribute('open');

/**
 * A page with a layout fires an event in a later task when a dialog was closed, or when a popover or details were
 * shown or hidden.
 *
 * @returns a function that waits for the events of the gesture since this was called
 */
export function hearLater(document: Document): () => Promise<void> {
  if (isSimulated(document)) return () => Promise.resolve();
  const all = [...document.querySelectorAll('dialog, details, [popover]')];
  const were = all.map(isOpen);
  const heard = new Set<EventTarget | null>();
  // A dialog may fire both events; we wait for the one that says it was closed.
  const hear = ({ target, type }: Event) => {
    if (type === 'close' || (target as Element).localName !== 'dialog') heard.add(target);
  };
  // Only newer browsers fire an event when a dialog is shown.
  const isDue = (element: Element, at: number) =>
    isOpen(element) !== were[at] && !(element.localName === 'dialog' && !were[at]) && !heard.has(element);
  document.addEventListener('toggle', hear, true);
  document.addEventListener('close', hear, true);
  return async () => {
    for (let waited = 0; waited < longest && all.some(isDue); waited += 4) await pause(4);
    document.removeEventListener('toggle', hear, true);
    document.removeEventListener('close', hear, true);
  };
}

/** Waits until a page with a layout has fired an event, as it fires `scroll` with its next frame. */
export const heardOnce = (document: Document, type: string): Promise<void> =>
  new Promise((resolve) => {
    document.addEventListener(type, () => resolve(), { capture: true, once: true });
    startTimer(longest, resolve);
  });
