import { domException } from './exceptions';
import { forgetModal, noteModal, statesOf, tellToggled } from './top-layer';

type Features = Record<string, PropertyDescriptor | ((...args: never[]) => unknown)>;

const returned = new WeakMap<Element, string>();
/** What had the focus before a dialog took it. */
const focusedBefore = new WeakMap<Element, HTMLElement>();

const windowOf = ({ ownerDocument }: Element) => ownerDocument.defaultView as unknown as typeof globalThis;

const takesFocus =
  'a[href],button,input:not([type=hidden]),select,textarea,summary,[tabindex],[contenteditable]:not([contenteditable=false])';

/** @see https://html.spec.whatwg.org/multipage/interactive-elements.html#show-a-modal-dialog */
function show(dialog: HTMLDialogElement, isModal: boolean): void {
  if (dialog.hasAttribute('open')) {
    if (!isModal) return;
    throw domException(windowOf(dialog), 'InvalidStateError', 'The dialog is open already.');
  }
  if (isModal && !dialog.isConnected)
    throw domException(windowOf(dialog), 'InvalidStateError', 'The dialog is not on the page.');
  const { ToggleEvent } = windowOf(dialog);
  const before = new ToggleEvent('beforetoggle', { ...statesOf(true), cancelable: true });
  if (!dialog.dispatchEvent(before) || dialog.hasAttribute('open')) return;
  if (isModal) noteModal(dialog);
  dialog.setAttribute('open', '');
  tellToggled(dialog, true);
  const { activeElement } = dialog.ownerDocument;
  focusedBefore.set(dialog, activeElement as HTMLElement);
  const inside = [...dialog.querySelectorAll<HTMLElement>(takesFocus)].filter(
    (one) => !one.matches(':disabled'),
  );
  const first = dialog.querySelector<HTMLElement>('[autofocus]') ?? inside[0];
  if (first) first.focus();
  else (activeElement as HTMLElement | null)?.blur();
}

/** @see https://html.spec.whatwg.org/multipage/interactive-elements.html#close-the-dialog */
function close(this: HTMLDialogElement, value?: string): void {
  if (!this.hasAttribute('open')) return;
  const { ToggleEvent, Event, setTimeout: later } = windowOf(this);
  this.dispatchEvent(new ToggleEvent('beforetoggle', statesOf(false)));
  if (!this.hasAttribute('open')) return;
  this.removeAttribute('open');
  forgetModal(this);
  if (value !== undefined) returned.set(this, String(value));
  const before = focusedBefore.get(this);
  focusedBefore.delete(this);
  const { activeElement, body } = this.ownerDocument;
  const isFocused = this.contains(activeElement);
  if (isFocused && before?.isConnected && before !== body) before.focus();
  later(() => this.dispatchEvent(new Event('close')), 0);
  tellToggled(this, false);
  // What is no longer rendered loses the focus a little later.
  later(() => {
    if (isFocused && this.contains(this.ownerDocument.activeElement) && !this.open)
      (this.ownerDocument.activeElement as HTMLElement).blur();
  }, 0);
}

/** What dialogs have. */
export const dialogFeatures: Features = {
  show(this: HTMLDialogElement) {
    show(this, false);
  },
  showModal(this: HTMLDialogElement) {
    show(this, true);
  },
  close,
  returnValue: {
    get(this: Element) {
      return returned.get(this) ?? '';
    },
    set(this: Element, value: unknown) {
      returned.set(this, String(value));
    },
  },
};
