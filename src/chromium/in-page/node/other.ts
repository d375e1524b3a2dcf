/* What Jest asks of the other modules of Node, for a page: none of it is reached while tests run. */
const nothing = (): undefined => undefined;

export class AsyncLocalStorage {
  #store: unknown;
  getStore(): unknown {
    return this.#store;
  }
  run<T>(store: unknown, work: () => T): T {
    const before = this.#store;
    this.#store = store;
    const done = work();
    if (!(done instanceof Promise)) this.#store = before;
    return done;
  }
}
export class AssertionError extends Error {}
export const readFileSync = (): string => '';
export const existsSync = (): boolean => false;
export const statSync = nothing;
export const lstatSync = nothing;
export const realpathSync = Object.assign((path: string) => path, { native: (path: string) => path });
export const mkdirSync = nothing;
export const writeFileSync = nothing;
export const readdirSync = (): string[] => [];
export const fileURLToPath = (url: string | URL): string => decodeURIComponent(new URL(url).pathname);
export const pathToFileURL = (path: string): URL => new URL(path, 'file:///');
export const isBuiltin = (): boolean => false;
export const builtinModules: string[] = [];
export const createRequire = nothing;
export const tmpdir = (): string => '/';
export const homedir = (): string => '/';
export const platform = (): string => 'browser';
export const cpus = (): unknown[] => [];
export const release = (): string => '';
export const isatty = (): boolean => false;
export const gte = (): boolean => true;
export default {
  AssertionError,
  readFileSync,
  existsSync,
  realpathSync,
  fileURLToPath,
  tmpdir,
  homedir,
  platform,
  release,
  isatty,
};
