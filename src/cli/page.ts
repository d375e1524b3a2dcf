import { refuse } from '../stage/errors';

const names = [
  'window',
  'document',
  'navigator',
  'location',
  'Node',
  'Element',
  'HTMLElement',
  'Event',
  'CustomEvent',
  'MutationObserver',
  'getComputedStyle',
];

/** Opens a simulated page in this process. @returns how to close it. @throws SIM-NO-PAGE without jsdom */
export async function openPage(): Promise<() => Promise<void>> {
  const { JSDOM } = await import('jsdom').catch((cause: unknown) =>
    refuse('SIM-NO-PAGE', { runner: 'the package jsdom:   npm install --save-dev jsdom' }, { cause }),
  );
  const { window } = new JSDOM('<!doctype html><html lang="en"><body></body></html>', {
    url: 'http://localhost/',
    pretendToBeVisual: true,
  });
  const page = window as unknown as Record<string, unknown>;
  for (const name of names) {
    Object.defineProperty(globalThis, name, {
      value: name === 'window' ? window : page[name],
      configurable: true,
      writable: true,
    });
  }
  return async () => {
    for (const name of names) Reflect.deleteProperty(globalThis, name);
    window.close();
  };
}
