import { foreignFramesOf, framesOf } from './errors/frames';
import { isError } from './is-error';
import { print } from './print';

/** Where a value comes from that does not say so itself: what a context or a token is called in the code. */
export interface Origin {
  /** The variable or export it is kept in. */
  readonly name?: string | undefined;
  /** The file and line it was made at (`session.ts:2`), or the package. */
  readonly made?: string | undefined;
}

/** True for a line of a stack that says where. */
export const isFrame = (line: string): boolean => /^\s+at .*:\d+:\d+\)?$/.test(line);

/** A place in the user's own code. */
export interface Place {
  readonly file: string;
  /** Counted from 1, as `column` is. */
  readonly line: number;
  readonly column: number;
}

type Stacked = { readonly stack?: string | undefined };

/** Where a stack first is in the user's own code. */
export function siteIn(error: Stacked): Place | undefined {
  for (const frame of foreignFramesOf(error)) {
    const place = placeOf(frame);
    if (place) return place;
  }
  return undefined;
}

// Whoever calls these is who starts a timer or subscribes.
const passedOn = /[\\/](zone\.js|rxjs)(?:[\\/]|(?:-[\w-]+)?\.js[:?])|ZoneSpec\./;

/** Where the code stands that made a call, if it is the user's own; undefined for a package. */
export function placeOfCaller(error: Stacked): Place | undefined {
  const frame = framesOf(error).find((one) => !passedOn.test(one));
  return frame === undefined ? undefined : placeOf(frame);
}

/** Where the component stands in whose name user's code asks for something: the last of it before a package calls it. */
export function readerIn(error: Stacked): Place | undefined {
  let found: Place | undefined;
  for (const frame of framesOf(error)) {
    const place = placeOf(frame);
    if (!place && found) return found;
    found = place ?? found;
  }
  return found;
}

// Angular's source maps name files on the machine it was built on.
const notUsers = /node_modules|node:|<anonymous>|-fastbuild[\w-]*\/bin\/packages\//;

function placeOf(frame: string): Place | undefined {
  const [, file, line, column] = /([^()\s]+):(\d+):(\d+)\)?$/.exec(frame) ?? [];
  if (!file || notUsers.test(file)) return undefined;
  return { file, line: Number(line), column: Number(column) };
}

/** What user's code threw, as facts. */
export interface Thrown {
  /** The class of the error, or the type of a value that is none. */
  readonly name: string;
  readonly message: string;
  /** The property that could not be read, or the function that could not be called. */
  readonly property?: string;
  /** Where it was thrown. */
  readonly at?: Place;
}

export function factsOfThrown(error: unknown): Thrown {
  if (!isError(error)) return { name: typeof error, message: print(error) };
  const { name, message } = error;
  const property =
    /\((?:reading|setting) '(.+?)'\)|Cannot destructure property '(.+?)'|([\w$]+) is not a (?:function|constructor)/
      .exec(message)
      ?.slice(1)
      .find(Boolean);
  const at = siteIn(error);
  return { name, message, ...(property && { property }), ...(at && { at }) };
}

/** A place as a person names it: `session.ts:2`. */
export const printPlace = ({ file, line }: Place): string =>
  `${file.split(/[\\/]/).at(-1)!.replace(/\?.*$/, '')}:${line}`;

/** The user's own file and line in a stack, `session.ts:2`; the package where all of it is in one. */
export function placeIn(error: Stacked): string | undefined {
  const site = siteIn(error);
  if (site) return printPlace(site);
  const library = framesOf(error).map(packageOf).find(Boolean);
  return library ? `the package "${library}"` : undefined;
}

/** The package a file belongs to; undefined for one of the user's own. */
export const packageOf = (file: string): string | undefined =>
  /.*node_modules[\\/]((?:@[^\\/]+[\\/])?[^\\/]+)/.exec(file)?.[1]?.replace('\\', '/');
