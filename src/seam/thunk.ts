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
  isThunk(value) || (typeof value === 'function' && isWayToModule(String(value)));

// Without its blanks and brackets: what is left has one way to be read, however long the text is.
const isWayToModule = (text: string): boolean =>
  text.length < 20_000 &&
  /^(async)?=>(return)?(await)?(import\b|Promise\.resolve\.then|__vite)/.test(
    text.slice(0, 2000).replace(/[\s(){}]+/g, ''),
  ) &&
  /^(async\b)?\s*\(\s*\)/.test(text);
