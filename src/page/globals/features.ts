import { makeFeature } from '../features';
import type { Page } from '../../core/replace';

/**
 * Features that every browser has, that a simulated page may lack, and that a small stand-in can replace.
 * Each is created on first use. A feature that the page has is left alone.
 */
const supplied: Readonly<Record<string, readonly string[]>> = {
  '': [
    ...['ResizeObserver', 'IntersectionObserver', 'matchMedia', 'CSS', 'visualViewport', 'MessageChannel'],
    ...['requestIdleCallback', 'cancelIdleCallback'],
    ...['PointerEvent', 'DragEvent', 'ClipboardEvent', 'ToggleEvent', 'DataTransfer', 'Notification'],
  ],
  'Element.prototype': [
    ...['scrollIntoView', 'scrollTo', 'scrollBy', 'scroll', 'animate', 'getAnimations', 'checkVisibility'],
    ...['setPointerCapture', 'hasPointerCapture', 'releasePointerCapture'],
  ],
  'HTMLElement.prototype': ['innerText', 'showPopover', 'hidePopover', 'togglePopover'],
  'HTMLDialogElement.prototype': ['show', 'showModal', 'close', 'returnValue'],
  'SVGElement.prototype': ['getBBox', 'getTotalLength', 'getComputedTextLength', 'getPointAtLength'],
  'Range.prototype': ['getClientRects', 'getBoundingClientRect'],
  'Document.prototype': [
    ...['execCommand', 'queryCommandSupported', 'elementFromPoint', 'elementsFromPoint', 'getAnimations'],
    ...['fonts', 'scrollingElement', 'fullscreenElement'],
  ],
  'Navigator.prototype': ['clipboard', 'permissions', 'geolocation'],
  'Blob.prototype': ['arrayBuffer', 'bytes', 'text', 'stream'],
  URL: ['createObjectURL', 'revokeObjectURL'],
};

/** Features that a simulated page has only by name. */
const hollow: Readonly<Record<string, readonly string[]>> = {
  'HTMLMediaElement.prototype': ['play', 'pause', 'load', 'canPlayType', 'paused'],
};

/** Supplies what a page lacks, permanently. */
export function supplyFeatures(page: Page): void {
  if (!page['document']) return;
  for (const [place, names] of Object.entries(supplied)) {
    const target = placeIn(page, place);
    for (const name of names) if (target && !(name in target)) supply(page, target, place, name);
  }
  const window = page as unknown as Window & typeof globalThis;
  // A page that has popovers closes dialogs by their forms as well, and plays media.
  if (window !== window.window || 'popover' in window.HTMLElement.prototype) return;
  window.addEventListener('submit', closeDialog);
  for (const [place, names] of Object.entries(hollow)) {
    const target = placeIn(page, place);
    for (const name of names) if (target) supply(page, target, place, name);
  }
}

/** A form with the method "dialog" closes its dialog. @see https://html.spec.whatwg.org/multipage/form-control-infrastructure.html#form-submission-algorithm */
function closeDialog(event: SubmitEvent): void {
  const form = event.target as HTMLFormElement;
  const { submitter, defaultPrevented } = event;
  const method = submitter?.getAttribute('formmethod') ?? form.getAttribute('method');
  const dialog = form.closest('dialog');
  if (method?.toLowerCase() !== 'dialog' || defaultPrevented || !dialog) return;
  event.preventDefault();
  dialog.close((submitter as HTMLButtonElement | null)?.value);
}

const placeIn = (page: Page, place: string): object | undefined =>
  place
    .split('.')
    .reduce<unknown>((at, name) => (name === '' ? at : (at as Page | undefined)?.[name]), page) as
    object | undefined;

function supply(page: Page, target: object, place: string, name: string): void {
  let made: PropertyDescriptor | undefined;
  const make = (): PropertyDescriptor => {
    try {
      return (made ??= makeFeature(page, place, name));
    } catch (error) {
      // A runner that removes a page reads all its globals at a time when nothing can be loaded.
      if (/require|torn down/.test((error as Error).message)) return {};
      throw error;
    }
  };
  Object.defineProperty(target, name, {
    configurable: true,
    enumerable: true,
    // A value or an accessor, as on the platform.
    get(this: unknown) {
      const { get, value } = make();
      return get ? (get.call(this) as unknown) : (value as unknown);
    },
    set(this: object, value: unknown) {
      const { set } = make();
      if (set) set.call(this, value);
      else Object.defineProperty(this, name, { value, configurable: true, writable: true, enumerable: true });
    },
  });
}
