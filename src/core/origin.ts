import { framesOf } from './errors/word';

/** Where a value comes from that does not say so itself: what a context or a token is called in the code. */
export interface Origin {
  /** The variable or export it is kept in. */
  readonly name?: string | undefined;
  /** The file and line it was made at (`session.ts:2`), or the package. */
  readonly made?: string | undefined;
}

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
