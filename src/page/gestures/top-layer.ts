import { isOpenPopover, openModals, popoversShown, setPopover } from '../features/top-layer';
import { around } from '../around';
import { tell } from './events';
import type { Person } from './person';

const light = (popover: Element): boolean =>
  /^(|auto|hint)$/.test(popover.getAttribute('popover') ?? 'manual');

const openPopovers = (document: Document): Element[] => popoversShown(document).filter(light);

const hide = (popover: Element): void => (popover as HTMLElement).hidePopover();

/** What Escape does: it hides the popover shown last, or asks to close the modal dialog in front. */
export async function closeByKey(person: Person): Promise<void> {
  const { document, send } = person;
  const popover = openPopovers(document).at(-1);
  if (popover) return void (await send(() => hide(popover)));
  const dialog = openModals(document).at(-1) as HTMLDialogElement | undefined;
  if (!dialog) return;
  if (await tell(send, dialog, 'cancel', { bubbles: false })) await send(() => dialog.close());
}

/** A press outside of a popover hides it. @see https://html.spec.whatwg.org/multipage/popover.html#popover-light-dismiss */
export async function dismissPopovers({ document, send }: Person, pressed: Element): Promise<void> {
  for (const popover of openPopovers(document).reverse()) {
    if (popover.contains(pressed) || targetOf(pressed)?.popover === popover) continue;
    await send(() => hide(popover));
  }
}

function targetOf(element: Element): { popover: Element; action: string } | undefined {
  const button = around(element, (at) => at.hasAttribute('popovertarget'));
  const id = button?.getAttribute('popovertarget');
  const popover = id ? element.ownerDocument.getElementById(id) : null;
  if (!button || !popover?.hasAttribute('popover')) return undefined;
  return { popover, action: button.getAttribute('popovertargetaction')?.toLowerCase() ?? 'toggle' };
}

/** What a button with a popover does when it is pressed, where the page does not do so by itself. */
export function runPopoverButton(element: Element): void {
  const target = targetOf(element);
  if (!target || 'popoverTargetElement' in element) return;
  const { popover, action } = target;
  const isOpen = isOpenPopover(popover);
  if (action === 'toggle' || (action === 'show') !== isOpen) setPopover(popover, !isOpen);
}
