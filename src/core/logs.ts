/** What a component logged. */
export interface Log {
  /** `error` or `warn`. */
  readonly level: string;
  readonly text: string;
  /** The component that logged it, where that is known. */
  readonly from: string | undefined;
}

/** A log that is expected: a part of its text, or a pattern. */
export interface Expected {
  readonly pattern: string | RegExp;
  /** True for one out of a team's defaults: it need not happen. */
  readonly spare: boolean;
  met: boolean;
}

const watched = new Set(['error', 'warn']);

/** What one subject may log, and what it has logged. */
export class Logs {
  readonly unexpected: Log[] = [];
  readonly heard: Log[] = [];

  constructor(
    readonly expected: readonly Expected[],
    /** True where anything may be logged. */
    readonly isAllowed: boolean,
  ) {}

  /** Takes a log down. @returns true for one that is expected, and need not be printed */
  hear(log: Log): boolean {
    this.heard.push(log);
    const fitting = this.expected.filter(({ pattern }) => fitsPattern(pattern, log.text));
    for (const one of fitting) one.met = true;
    if (fitting.length > 0) return true;
    if (!this.isAllowed && watched.has(log.level)) this.unexpected.push(log);
    return false;
  }

  /** The first that was to happen and has not. */
  get missed(): Expected | undefined {
    return this.expected.find(({ met, spare }) => !met && !spare);
  }
}

/** True for a text that has a part, or fits a pattern. */
export const fitsPattern = (pattern: string | RegExp, text: string): boolean => {
  if (typeof pattern === 'string') return text.includes(pattern);
  // A pattern with a flag that remembers where it was would miss every other log.
  pattern.lastIndex = 0;
  return pattern.test(text);
};

/** A log as the console prints it: the first text may have places for the rest. @see https://console.spec.whatwg.org/#formatter */
export function formatLog(args: readonly unknown[], print: (value: unknown) => string): string {
  const rest = [...args];
  const words: string[] = [];
  if (typeof rest[0] === 'string')
    words.push(
      (rest.shift() as string).replace(/%([sdifoOc%])/g, (place, kind: string) => {
        if (kind === '%') return '%';
        if (rest.length === 0) return place;
        const value = rest.shift();
        if (kind === 'c') return '';
        return typeof value === 'string' ? value : print(value);
      }),
    );
  return [...words, ...rest.map((one) => (typeof one === 'string' ? one : print(one)))].join(' ');
}
