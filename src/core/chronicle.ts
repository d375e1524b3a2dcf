/** What kinds of things a chronicle holds. */
export type HappeningKind =
  | 'mounted'
  | 'rendered'
  | 'updated'
  | 'asked'
  | 'answered'
  | 'aborted'
  | 'unmatched'
  | 'connected'
  | 'sent'
  | 'received'
  | 'closed'
  | 'called'
  | 'told'
  | 'emitted'
  | 'navigated'
  | 'moved'
  | 'clicked'
  | 'typed'
  | 'cleared'
  | 'chose'
  | 'pressed'
  | 'hovered'
  | 'left'
  | 'dragged'
  | 'dropped'
  | 'scrolled'
  | 'marked'
  | 'copied'
  | 'cut'
  | 'pasted'
  | 'composed'
  | 'changed'
  | 'logged'
  | 'read'
  | 'threw'
  | 'unmounted';

/** One line of a chronicle. */
export interface Happening {
  /** Milliseconds since the subject was asked for. */
  readonly at: number;
  readonly kind: HappeningKind;
  /** Who or what: a component, a route, an element. */
  readonly what: string;
  /** What came of it: a status, a text, the arguments of a call. */
  readonly detail: string;
  /** The component or test step it came from, where that is known. */
  readonly from: string | undefined;
  /** The gesture, answer or release that set it off, where one did. */
  readonly cause: Happening | undefined;
}

type Note = Partial<Pick<Happening, 'from'>> & {
  /** A function is asked for the text only when somebody reads it. */
  readonly detail?: string | (() => string) | undefined;
  /** Later happenings were set off by this one, until the next such. */
  readonly trigger?: boolean;
};

/**
 * Everything that happened to one subject, in order. Iterate over it, filter it with `of(kind)`, or print it with
 * `String(chronicle)`.
 *
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': hives } });
 * expect(board.chronicle.of('asked').map((line) => line.what)).toEqual(['GET /api/hives?yard=north']);
 */
export interface Chronicle extends Iterable<Happening> {
  readonly entries: readonly Happening[];
  /** The lines of one kind, in order. */
  of(kind: HappeningKind): Happening[];
  /** The chronicle as text: one line each, at most `width` columns (90 unless said otherwise). */
  toString(width?: number): string;
}

/** The chronicle while it is being written. */
export class ChronicleLog implements Chronicle {
  readonly #lines: Line[] = [];
  readonly #read: Happening[] = [];
  #start: number;
  #trigger: Line | undefined;

  /** @param now milliseconds on the subject's clock */
  constructor(private readonly now: () => number) {
    this.#start = now();
  }

  /** Milliseconds since the subject was asked for. */
  get elapsed(): number {
    return this.now() - this.#start;
  }

  /** Counts from now on. Nothing may have been written yet. */
  restart(): void {
    this.#start = this.now();
  }

  /** What nobody reads is not made. */
  get entries(): Happening[] {
    for (let at = this.#read.length; at < this.#lines.length; at++) this.#read.push(read(this.#lines[at]!));
    return this.#read;
  }

  /** Writes one line. */
  add(kind: HappeningKind, what: string | (() => string), note: Note = {}): void {
    const { detail = '', from, trigger } = note;
    const at = this.elapsed;
    const line: Line = { at, kind, what, detail, from, cause: this.#trigger, happening: undefined };
    this.#lines.push(line);
    if (trigger) this.#trigger = line;
  }

  /** Begins anew. */
  forget(): void {
    this.#lines.length = this.#read.length = 0;
    this.#trigger = undefined;
  }

  /** The last line of one kind, where none of the other kind came after it. */
  lastWithout(kind: HappeningKind, after: HappeningKind): Happening | undefined {
    const line = this.#lines.findLast((one) => one.kind === kind || one.kind === after);
    return line?.kind === kind ? read(line) : undefined;
  }

  /** The place of the last line of some kinds; -1 where there is none. */
  placeOf(kinds: ReadonlySet<HappeningKind>): number {
    return this.#lines.findLastIndex(({ kind }) => kinds.has(kind));
  }

  /** The last line of all. */
  get last(): Happening | undefined {
    const line = this.#lines.at(-1);
    return line && read(line);
  }

  /** What there is now, to be read later. */
  upToNow(): () => readonly Happening[] {
    const { length } = this.#lines;
    return () => this.entries.slice(0, length);
  }

  of(kind: HappeningKind): Happening[] {
    return this.entries.filter((entry) => entry.kind === kind);
  }

  [Symbol.iterator](): Iterator<Happening> {
    return this.entries[Symbol.iterator]();
  }

  toString(width = 90): string {
    return printLines(this.entries, 0, width);
  }

  /** The end of it, for a message, with a word on what went before. */
  recent(most = mostLines): string {
    const first = this.#lines.length - most;
    if (first <= 1) return this.toString();
    const last = this.#lines.slice(first - 1).map(read);
    return `… ${first} earlier lines: String(subject.chronicle)\n${printLines(last, 1, 90)}`;
  }
}

/** A line as it was written. */
interface Line {
  readonly at: number;
  readonly kind: HappeningKind;
  readonly what: string | (() => string);
  readonly detail: string | (() => string);
  readonly from: string | undefined;
  readonly cause: Line | undefined;
  /** The same as it is read. */
  happening: Happening | undefined;
}

// Text that is expensive to create is created when it is read.
function read(line: Line): Happening {
  const { at, kind, what, detail, from } = line;
  const cause = line.cause && read(line.cause);
  if (typeof what === 'string' && typeof detail === 'string')
    return (line.happening ??= { at, kind, what, detail, from, cause });
  return (line.happening ??= {
    at,
    kind,
    get what() {
      return keep(this, 'what', what);
    },
    get detail() {
      return keep(this, 'detail', detail);
    },
    from,
    cause,
  });
}

function keep(happening: object, field: string, word: string | (() => string)): string {
  const value = typeof word === 'string' ? word : word();
  Object.defineProperty(happening, field, { value, enumerable: true });
  return value;
}

const mostLines = 60;

function printLines(entries: readonly Happening[], first: number, width: number): string {
  let widest = 0;
  for (let at = first; at < entries.length && widest < 36; at++)
    widest = Math.max(widest, entries[at]!.what.length);
  const column = Math.min(36, widest);
  const lines: string[] = [];
  for (let at = first; at < entries.length; at++)
    lines.push(line(entries[at]!, entries[at - 1], column, width));
  return lines.join('\n');
}

function line(entry: Happening, before: Happening | undefined, column: number, width: number): string {
  const start = `${String(Math.round(entry.at)).padStart(5)} ms  ${entry.kind.padEnd(9)}  `;
  const because = entry.from ? `from ${entry.from}` : causeOf(entry, before);
  const room = width - start.length - (because ? because.length + 3 : 0);
  const what = `${entry.what.padEnd(column)}   ${entry.detail}`.trimEnd();
  const cut = what.length > room ? `${what.slice(0, Math.max(8, room - 1))}…` : what;
  return `${start}${cut}${because ? `   ${because}` : ''}`;
}

// A cause on the previous line is not repeated.
const causeOf = ({ kind, cause }: Happening, before: Happening | undefined): string =>
  cause && cause !== before && cause.kind !== 'mounted' && (kind === 'rendered' || kind === 'threw')
    ? `after ${cause.kind}`
    : '';
