/** `() => import('…')` as a name for a module: what it leads to is known without calling it. */
export interface Thunk {
  (): Promise<unknown>;
  readonly [mark]: { readonly specifier: string; readonly id: () => string };
}

const mark = Symbol.for('simulacra.module');

export const tagThunk = (load: () => Promise<unknown>, specifier: string, id: () => string): Thunk =>
  Object.assign(load, { [mark]: { specifier, id } });

export const isThunk = (value: unknown): value is Thunk => typeof value === 'function' && mark in value;

/** The specifier in a way to a module, whether it was rewritten or not, or made into a `require`. */
export const specifierIn = (way: object): string =>
  isThunk(way)
    ? moduleOf(way).specifier
    : (/\b(?:import|require)\s*\(\s*(?:\/\*.*?\*\/\s*)?["'`]([^"'`]+)["'`]/.exec(String(way))?.[1] ??
      String(way));

export const moduleOf = (thunk: Thunk) => thunk[mark];

/** True for what looks like `() => import('…')`, whether it was rewritten or not. */
export const looksLikeThunk = (value: unknown): value is () => Promise<unknown> =>
  isThunk(value) || (typeof value === 'function' && value.length === 0 && isWay(value));

const ways = new WeakMap<object, boolean>();

// Cached, because the same functions are passed repeatedly and reading a function's text is slow.
function isWay(value: object): boolean {
  let is = ways.get(value);
  if (is === undefined) ways.set(value, (is = isWayToModule(String(value))));
  return is;
}

// Without white space and brackets the rest is unambiguous, however long the text is.
const isWayToModule = (text: string): boolean =>
  text.length < 20_000 &&
  /^(async)?=>(return)?(await)?(import\b|Promise\.resolve\.then|__vite)/.test(
    text.slice(0, 2000).replace(/[\s(){}]+/g, ''),
  ) &&
  /^(async\b)?\s*\(\s*\)/.test(text);

/** What a module is called after its file: `HiveBoard` for './HiveBoard.vue'. */
export const fileNameIn = (specifier: string): string =>
  specifier
    .split('/')
    .at(-1)!
    .replace(/\.\w+$/, '');
