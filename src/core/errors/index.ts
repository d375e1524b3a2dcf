import { isError } from '../is-error';
import { isExplained } from './called-from';
import { doubles } from './doubles';
import { SimulacraError } from './error';
import { explaining, refusing, type Explain, type Refuse } from './registry';
import { steps } from './steps';
import { framesOf } from './frames';

export { SimulacraError };

/** The codes of the core itself. */
export const registry = { ...doubles, ...steps };

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);

/** Points a failure at the user's call, where its own stack has none of the user's lines. */
export function locateAt(failure: unknown, calledAt: Error): unknown {
  if (!isExplained(failure)) return failure;
  const isUsers = (frame: string) => !/node_modules|node:|<anonymous>/.test(frame);
  const useless = failure.cause !== undefined || !framesOf(failure).some(isUsers);
  if (useless) failure.stack = [`${failure.name}: ${failure.message}`, ...framesOf(calledAt)].join('\n');
  return failure;
}

const history = '\n\n  What happened before:';

/** A message without what happened before. */
export const withoutHistory = (message: string): string => message.split(history)[0]!;

/** A message as part of another one: without its code, what happened before, and what only the step itself could do. */
export function asPart(message: string): string {
  // eslint-disable-next-line no-control-regex -- a runner's colours
  const [head = '', ...rest] = withoutHistory(message.replace(/\u001b\[\d+m/g, '')).split('\n\n');
  const told = rest.filter((part) => !part.trim().startsWith('If it comes later'));
  return [head.replace(/^SIM-[\w-]+ {2}/, '').replaceAll('\n', ' '), ...told].join('\n\n');
}

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

/** One complaint out of several: the first, with the others in it. */
export function joinComplaints(complaints: readonly unknown[]): unknown {
  const [first, ...others] = complaints;
  if (others.length > 0 && isError(first)) {
    const said = others.map((other) => (isError(other) ? other.message : String(other)));
    // What differs only in what happened before is the same.
    const own = first.message.split(history)[0]!;
    const told = [...new Set(said)].filter((text) => !own.includes(text.split(history)[0]!));
    if (told.length === 0) return first;
    rewrite(first, [first.message, ...told].join('\n\nand also\n\n'));
  }
  return first;
}
