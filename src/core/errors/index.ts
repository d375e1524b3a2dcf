import { doubles } from './doubles';
import { SimulacraError, type Report } from './error';
import { steps } from './steps';

export { SimulacraError };

/** What a message tells beside its own matter. */
export interface Circumstances {
  readonly cause?: unknown;
  /** What happened before; turned into text only when a failure is worded. */
  readonly chronicle?: { toString(): string; recent?(): string } | undefined;
  /** An error made where the user called us; its stack is the one worth reading. */
  readonly calledAt?: { readonly stack?: string | undefined } | undefined;
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each wording takes fields of its own
type Wordings = Readonly<Record<string, (fields: any) => Report>>;

type FieldsOf<R extends Wordings, C extends keyof R> = Parameters<R[C]>[0];

/** Words a failure without throwing it. */
export type Explain<R extends Wordings> = <C extends keyof R & string>(
  code: C,
  fields: FieldsOf<R, C>,
  around?: Circumstances,
) => SimulacraError;

/** Fails with a coded, worded error. @throws always */
export type Refuse<R extends Wordings> = <C extends keyof R & string>(
  code: C,
  fields: FieldsOf<R, C>,
  around?: Circumstances,
) => never;

/** Makes the errors of a registry. Each folder has a registry of its own, beside what throws. */
export const explaining =
  <R extends Wordings>(registry: R): Explain<R> =>
  (code, fields, around = {}) =>
    wordFailure(code, fields as object, registry[code]!(fields), around);

/** The same, thrown. */
export const refusing =
  <R extends Wordings>(registry: R): Refuse<R> =>
  (code, fields, around = {}) => {
    throw wordFailure(code, fields as object, registry[code]!(fields), around);
  };

/** The codes of the core itself. */
export const registry = { ...doubles, ...steps };

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);

function wordFailure(code: string, fields: object, report: Report, around: Circumstances): SimulacraError {
  const { chronicle } = around;
  const error = new SimulacraError(code, fields, report, {
    ...('cause' in around && { cause: around.cause }),
    chronicle: chronicle && shorten(chronicle.recent?.() ?? chronicle.toString()),
  });
  const lines = framesOf(around.calledAt ?? error);
  if (lines.length > 0) error.stack = [`${error.name}: ${error.message}`, ...lines].join('\n');
  return error;
}

// Where we stand ourselves is no news: the stack begins at the user's line.
function framesOf({ stack = '' }: { readonly stack?: string | undefined }): string[] {
  const own = /(?:file:|\/|\w:\\)[^()]*(?=:\d+:\d+)/.exec(new Error().stack?.split('\n')[1] ?? '')?.[0];
  const frames = stack.split('\n').filter((text) => /^\s+at /.test(text));
  const first = frames.findIndex((frame) => !own || !frame.includes(own));
  return first < 0 ? frames : frames.slice(first);
}

// What comes again and again is told once, and how often.
function shorten(chronicle: string): string {
  const lines = chronicle.split('\n');
  const kept: string[] = [];
  const alike = (line = '') => line.replace(/^ *\d+ ms/, '');
  for (let at = 0; at < lines.length; at++) {
    kept.push(lines[at]!);
    let end = at;
    while (alike(lines[end + 1]) === alike(lines[at]) && end + 1 < lines.length) end++;
    if (end - at > 2) {
      kept.push(`          … ${end - at} more times`);
      at = end;
    }
  }
  return kept.join('\n');
}

/** Points a failure at the user's call, where its own stack has none of the user's lines. */
export function locateAt(failure: unknown, calledAt: Error): unknown {
  if (!isExplained(failure)) return failure;
  const isUsers = (frame: string) => !/node_modules|node:/.test(frame);
  const useless = failure.cause !== undefined || !framesOf(failure).some(isUsers);
  if (useless) failure.stack = [`${failure.name}: ${failure.message}`, ...framesOf(calledAt)].join('\n');
  return failure;
}

/** An error that remembers where the user called `below`, without what lies beneath that call. */
export function calledFrom(what: string, below: (...args: never[]) => unknown): Error {
  const error = new Error(what);
  (Error as { captureStackTrace?: (error: Error, below: unknown) => void }).captureStackTrace?.(error, below);
  return error;
}

/** True for a failure that is worded already. */
export const isExplained = (error: unknown): error is SimulacraError =>
  error instanceof Error && error.name === 'SimulacraError';

const history = '\n\n  What happened before:';

function rewrite(error: Error, message: string): void {
  error.message = message;
  error.stack = [`${error.name}: ${message}`, ...framesOf(error)].join('\n');
}

/** A complaint without what happened before, for who has read it already. */
export function shortened(complaint: Error): Error {
  rewrite(complaint, complaint.message.split(history)[0]!);
  return complaint;
}

/** Tells in a failure what is likely to have caused it, before what happened before. */
export function tellCauses(failure: Error, causes: readonly Error[]): void {
  const [head, ...rest] = failure.message.split(history);
  const news = causes
    .map(({ message }) => message.split(history)[0]!)
    .filter((text) => !head!.includes(text));
  if (news.length === 0) return;
  const told = news.map((text) => `  This is likely to be why:\n\n${indent(text)}`);
  rewrite(failure, [head, ...told].join('\n\n') + rest.map((lines) => history + lines).join(''));
}

const indent = (text: string) => text.replace(/^(?=.)/gm, '  ');

/** One complaint out of several: the first, with the others told in it. */
export function joinComplaints(complaints: readonly unknown[]): unknown {
  const [first, ...others] = complaints;
  if (others.length > 0 && first instanceof Error) {
    const said = others.map((other) => (other instanceof Error ? other.message : String(other)));
    const told = [...new Set(said)].filter((text) => !first.message.includes(text));
    if (told.length === 0) return first;
    rewrite(first, [first.message, ...told].join('\n\nand also\n\n'));
  }
  return first;
}
