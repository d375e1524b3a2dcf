/** `() => import('…')` as a name for a module: what it leads to is known without calling it. */
export interface Thunk {
  (): Promise<unknown>;
  readonly [mark]: { readonly specifier: string; readonly id: () => string };
}

const mark = Symbol.for('simulacra.module');

export const tagThunk = (load: () => Promise<unknown>, specifier: string, id: () => string): Thunk =>
  Object.assign(load, { [mark]: { specifier, id } });

export const isThunk = (value: unknown): value is Thunk => typeof value === 'function' && mark in value;

export const moduleOf = (thunk: Thunk) => thunk[mark];

/** True for what looks like `() => import('…')`, whether it was rewritten or not. */
export const looksLikeThunk = (value: unknown): value is () => Promise<unknown> =>
  isThunk(value) ||
  (typeof value === 'function' &&
    /^(async\s*)?\(\)\s*=>\s*[({\s]*(return\s+)?[({\s]*(await\s*)?[({\s]*(import\s*\(|Promise\.resolve\(\)\s*\.then|__vite)/.test(
      String(value),
    ));
