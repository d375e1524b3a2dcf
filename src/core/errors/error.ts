import type { Happening } from '../chronicle';
import type { Thrown } from '../origin';
import { print } from '../print';

/** What every failure says, whatever its code. */
export interface Report {
  /** What was asked and why it could not be done: one sentence or two. */
  readonly head: string;
  /** What is there instead. */
  readonly there?: readonly string[];
  /** The nearest thing to what was asked, as code that can be pasted. */
  readonly nearest?: string | undefined;
  /** What to do next. */
  readonly next?: readonly string[];
}

interface Circumstances {
  readonly cause?: unknown;
  readonly thrown?: Thrown | undefined;
  /** What happened before, as text and line by line. */
  readonly chronicle?: string | undefined;
  readonly happened?: (() => readonly Happening[]) | undefined;
}

/**
 * Every failure this library explains. `code` is stable; `fields` are the facts of the message as
 * data. The codes are listed in docs/errors.md.
 */
export class SimulacraError extends Error {
  override readonly name = 'SimulacraError';
  /** What code of yours threw, where that is the reason: its class, message, file, line and column. */
  readonly thrown: Thrown | undefined;
  /** What happened to the subject before, line by line. Empty where no subject was up. */
  declare readonly happened: readonly Happening[];

  /** Each entry of the package brings a copy of this class, and an error of one is an error of all. */
  static override [Symbol.hasInstance](value: unknown): boolean {
    return value instanceof Error && value.name === 'SimulacraError' && 'code' in value;
  }

  constructor(
    readonly code: string,
    readonly fields: object,
    report: Report,
    options: Circumstances = {},
  ) {
    super(layOut(code, report, options.chronicle), 'cause' in options ? { cause: options.cause } : {});
    this.thrown = options.thrown;
    // Read when somebody asks, because a chronicle may be long.
    let happened: readonly Happening[] | undefined;
    const get = () => (happened ??= options.happened?.() ?? []);
    Object.defineProperty(this, 'happened', { get, configurable: true });
  }

  /** The facts as data that any program can read: what JSON has no word for is printed. */
  toJSON(): object {
    const { code, name, message, stack, fields, thrown } = this;
    const happened = this.happened
      .slice(-mostInside)
      .map(({ at, kind, what, detail, from }) => ({ at, kind, what, detail, from }));
    return { name, code, message, fields: asData(fields, 0), thrown, happened: asData(happened, 0), stack };
  }
}

const deepest = 4;
const mostInside = 100;

function asData(value: unknown, depth: number): unknown {
  if (typeof value === 'string') return value.length > 10_000 ? `${value.slice(0, 10_000)}…` : value;
  if (value === null || /^(number|boolean|undefined)$/.test(typeof value)) return value;
  if (typeof value !== 'object' || depth === deepest || !isData(value)) return print(value);
  if (Array.isArray(value)) return value.slice(0, mostInside).map((one) => asData(one, depth + 1));
  const entries = Object.entries(value).slice(0, mostInside);
  return Object.fromEntries(entries.map(([key, one]) => [key, asData(one, depth + 1)]));
}

// Something of a class of its own is no data.
function isData(value: object): boolean {
  const prototype = Object.getPrototypeOf(value) as object | null;
  return Array.isArray(value) || prototype === null || Object.getPrototypeOf(prototype) === null;
}

function layOut(code: string, report: Report, chronicle: string | undefined): string {
  // The runner puts the name of the error in front of the first line.
  const parts = [fold(`${name}${code}  ${report.head}`, '').slice(name.length)];
  if (report.there?.length) parts.push(indent(report.there));
  if (report.nearest) parts.push(indent([`Did you mean   ${report.nearest}`]));
  if (report.next?.length) parts.push(indent(report.next));
  if (chronicle) parts.push(`  What happened before:\n${indent(chronicle.split('\n'))}`);
  return parts.join('\n\n');
}

const indent = (lines: readonly string[]) =>
  lines
    .flatMap((line) => line.split('\n'))
    .map((line) => fold(`  ${line}`.trimEnd(), '  '))
    .join('\n');

const width = 94;
const name = 'SimulacraError: ';

/** Breaks a line between words where it is too long to read in a terminal. */
function fold(line: string, margin: string): string {
  if (line.length <= width) return line;
  const at = line.lastIndexOf(' ', width);
  // What has no space to break at, code for one, is better long than broken.
  if (at <= margin.length) return line;
  return `${line.slice(0, at).trimEnd()}\n${fold(`${margin}${line.slice(at + 1)}`, margin)}`;
}
