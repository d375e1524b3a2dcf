import { once } from '../../core/shared';
import type { Page } from '../../core/replace';

/** Told before a script writes what the page keeps for a person: its cookies or its title. Nobody listens while no subject is up. */
export const written = once('written', () => ({
  before: undefined as ((what: 'cookie' | 'title', document: Document) => void) | undefined,
}));

/** Notices writes, so that what was there before is read only where it is needed. */
export function watchWrites(page: Page): void {
  const { Document: Kind } = page as Partial<typeof globalThis>;
  if (!Kind) return;
  for (const name of ['cookie', 'title'] as const) {
    const original = Object.getOwnPropertyDescriptor(Kind.prototype, name);
    if (!original?.set) continue;
    const set = function (this: Document, value: string) {
      written.before?.(name, this);
      original.set!.call(this, value);
    };
    Object.defineProperty(Kind.prototype, name, { ...original, set });
  }
}
