import type { ChronicleLog } from '../core/chronicle';
import type { Origin } from '../core/origin';
import { print } from '../core/print';

/** A value that was asked for where nobody provides it. */
export interface BareRead {
  /** What it was asked by: a context, an injection key. */
  readonly token: unknown;
  /** What was got instead. */
  readonly value: unknown;
  readonly reader: string;
  /** True where the reader stands around the subject, in what `wrap` gives. */
  readonly isAround: boolean;
  /** What the token is called in the code; read only where a message names it. */
  origin(): Origin;
}

/** Where a component asked for a value first. */
export type Asking = BareRead & { readonly asked?: Error };

/** What a subject has asked for and nobody provides, written down once for each component that asks. */
export class BareReads {
  readonly all: Asking[] = [];
  readonly #known = new Map<unknown, Set<string>>();

  constructor(private readonly chronicle: ChronicleLog) {}

  /** @param detail what the chronicle says of it */
  note(read: BareRead, detail: () => string = () => 'nobody provides it'): void {
    const readers = this.#known.get(read.token) ?? new Set();
    this.#known.set(read.token, readers);
    if (readers.has(read.reader)) return void this.all.push(read);
    readers.add(read.reader);
    this.all.push(Object.assign(read, { asked: new Error('asked for') }));
    this.chronicle.add('read', () => nameOf(read.origin()), { detail, from: read.reader });
  }
}

const nameOf = ({ name, made }: Origin): string => name ?? (made ? `a value made at ${made}` : 'a value');

/** The default that was got instead, for the chronicle. */
export const wordDefault = ({ value }: BareRead): string =>
  `${print(value, 40)}, the default: nobody provides it`;
