import { framesOf } from './errors/word';

/** Where a value comes from that does not say so itself: what a context or a token is called in the code. */
export interface Origin {
  /** The variable or export it is kept in. */
  readonly name?: string | undefined;
  /** The file and line it was made at (`session.ts:2`), or the package. */
  readonly made?: string | undefined;
}

/** True for a line of a stack that says where. */
export const isFrame = (line: string): boolean => /^\s+at .*:\d+:\d+\)?$/.test(line);

/** Where a stack first is in the user's own code. */
export function siteIn(error: {
  readonly stack?: string | undefined;
}): { file: string; line: number } | undefined {
  for (const frame of framesOf(error)) {
    const [, file, line] = /([^()\s]+):(\d+):\d+\)?$/.exec(frame) ?? [];
    if (file && !/node_modules|node:|<anonymous>/.test(file)) return { file, line: Number(line) };
  }
  return undefined;
}

/** The user's own file and line in a stack, `session.ts:2`; the package where all of it is in one. */
export function placeIn(error: { readonly stack?: string | undefined }): string | undefined {
  const site = siteIn(error);
  if (site) return `${site.file.split(/[\\/]/).at(-1)!.replace(/\?.*$/, '')}:${site.line}`;
  const library = framesOf(error).map(packageOf).find(Boolean);
  return library ? `the package "${library}"` : undefined;
}

/** The package a file belongs to; undefined for one of the user's own. */
export const packageOf = (file: string): string | undefined =>
  /.*node_modules[\\/]((?:@[^\\/]+[\\/])?[^\\/]+)/.exec(file)?.[1]?.replace('\\', '/');
