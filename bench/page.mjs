// A simulated page in this process, with what React and the library look for in it.
import { JSDOM } from 'jsdom';

const { window } = new JSDOM('<!doctype html><html lang="en"><body></body></html>', {
  url: 'http://localhost/',
  pretendToBeVisual: true,
});
for (const name of [
  'window',
  'document',
  'navigator',
  'location',
  'Node',
  'Element',
  'Text',
  'HTMLElement',
  'SVGElement',
  'MathMLElement',
  'Event',
  'MutationObserver',
  'getComputedStyle',
]) {
  Object.defineProperty(globalThis, name, {
    value: name === 'window' ? window : (window[name] ?? class {}),
    configurable: true,
    writable: true,
  });
}

/** The platform's own fetch, before any double. */
export const realFetch = globalThis.fetch;
