import type { Adapter } from './adapter';
import { explain } from './errors';
import type { AllOptions } from './options';
import { StubSet } from './stubs';

/** A value that is provided, and whether anybody has read it. */
export interface Provision {
  readonly token: unknown;
  readonly value: unknown;
  /** True for one out of a team's defaults: not every test need have use for it. */
  readonly spare: boolean;
  used: boolean;
}

/** The options of one subject, read once. */
export interface ReadOptions {
  readonly props: object;
  /** What is put into the subject, by slot. */
  readonly slots: Readonly<Record<string, unknown>>;
  readonly stubs: StubSet;
  readonly provide: readonly Provision[];
  readonly wrap: readonly unknown[];
  readonly routes: Readonly<Record<string, unknown>>;
  /** All options as they were given, for those only one framework has. */
  readonly given: AllOptions;
}

/** Reads checked options into what everybody works with. */
export function readOptions(adapter: Adapter, options: AllOptions): ReadOptions {
  const { props = {}, slots = {}, stub = [], keep = [], depth = 'full', provide = [], wrap = [] } = options;
  const most = depth === 'full' ? Infinity : depth;
  return {
    props,
    slots,
    stubs: new StubSet(stub, keep, most, adapter.nameOf, adapter.unwrap, adapter.nameAs),
    provide: readProvisions(provide, options.spareProvisions ?? 0),
    wrap,
    routes: (options.network ?? {}) as Record<string, unknown>,
    given: options,
  };
}

// If a token has two values, the later one wins: the test's own overrides its team's.
const readProvisions = (provide: NonNullable<AllOptions['provide']>, spare: number): Provision[] =>
  provide
    .map(([token, value], at) => ({ token, value, spare: at < spare, used: false }))
    .filter(({ token }, at) => !provide.slice(at + 1).some(([later]) => later === token));

/** What to say of a value that nobody has read; undefined where each was, or need not be. */
export function complainOfUnread(
  subject: string,
  { provide }: ReadOptions,
  nameOfToken: (token: unknown) => string,
): Error | undefined {
  const unread = provide.filter(({ spare, used }) => !spare && !used);
  if (unread.length === 0) return undefined;
  const names = unread.map(({ token }) => nameOfToken(token));
  const read = provide.filter(({ used }) => used).map(({ token }) => nameOfToken(token));
  return explain('SIM-PROVIDE-UNUSED', { subject, names, read });
}
