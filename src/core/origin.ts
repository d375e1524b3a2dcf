import { framesOf } from './errors/word';
import { once } from './shared';

/** Where a value comes from that does not say so itself: what a context or a token is called in the code. */
export interface Origin {
  /** The variable or export it is kept in. */
  readonly name?: string | undefined;
  /** The file and line it was made at (`session.ts:2`), or the package. */
  readonly made?: string | undefined;
}

// A symbol may be a key of such a map too, which the types of the language do not say yet.
const origins = once('origins', () => new WeakMap<object, Origin>());

/** Remembers where a value comes from; what is known already stays. */
export function noteOrigin(value: unknown, origin: Origin): void {
  const isKey = typeof value === 'object' || typeof value === 'function' || typeof value === 'symbol';
  if (!isKey || value === null) return;
  try {
    origins.set(value as object, { ...origin, ...origins.get(value as object) });
  } catch {
    // A symbol that is registered for everybody cannot be kept.
  }
}

/** Where a value comes from, as far as anybody has noted it. */
export const originOf = (value: unknown): Origin => {
  const isKey = typeof value === 'object' || typeof value === 'function' || typeof value === 'symbol';
  return (isKey && value !== null && origins.get(value as object)) || {};
};

/** The user's own file and line in a stack, `session.ts:2`; the package where all of it is in one. */
export function placeIn(error: { readonly stack?: string | undefined }): string | undefined {
  const frames = framesOf(error).map((frame) => /([^()\s]+):(\d+):\d+\)?$/.exec(frame));
  for (const found of frames) {
    if (!found || /node_modules|node:|<anonymous>/.test(found[1]!)) continue;
    return `${found[1]!.split(/[\\/]/).at(-1)!.replace(/\?.*$/, '')}:${found[2]}`;
  }
  const library = frames.map((found) => found && packageOf(found[1]!)).find(Boolean);
  return library ? `the package "${library}"` : undefined;
}

/** The package a file belongs to; undefined for one of the user's own. */
export const packageOf = (file: string): string | undefined =>
  /.*node_modules[\\/]((?:@[^\\/]+[\\/])?[^\\/]+)/.exec(file)?.[1]?.replace('\\', '/');
