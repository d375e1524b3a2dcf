import type { Happening } from '../chronicle';
import type { SimulacraError, Report } from './error';
import { wordFailure } from './word';

/** What a message says beside its own matter. */
export interface Circumstances {
  readonly cause?: unknown;
  /** What happened before; turned into text only when a failure is worded. */
  readonly chronicle?:
    { toString(): string; recent?(): string; upToNow?(): () => readonly Happening[] } | undefined;
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
  circumstances?: Circumstances,
) => SimulacraError;

/** Fails with a coded, worded error. @throws always */
export type Refuse<R extends Wordings> = <C extends keyof R & string>(
  code: C,
  fields: FieldsOf<R, C>,
  circumstances?: Circumstances,
) => never;

/** Makes the errors of a registry. Each folder has a registry of its own, beside what throws. */
export const explaining =
  <R extends Wordings>(registry: R): Explain<R> =>
  (code, fields, circumstances = {}) =>
    wordFailure(code, fields as object, registry[code]!(fields), circumstances);

/** The same, thrown. */
export const refusing =
  <R extends Wordings>(registry: R): Refuse<R> =>
  (code, fields, circumstances = {}) => {
    throw wordFailure(code, fields as object, registry[code]!(fields), circumstances);
  };
