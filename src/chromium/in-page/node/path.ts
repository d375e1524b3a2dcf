/* What Jest asks of Node's `path`, for a page. */
export const sep = '/';
export const join = (...parts: string[]): string => parts.filter(Boolean).join('/').replace(/\/+/g, '/');
export const resolve = join;
export const dirname = (path: string): string => path.replace(/\/[^/]*$/, '') || '/';
export const basename = (path: string): string => path.split('/').at(-1)!;
export const extname = (path: string): string => /\.[^./]*$/.exec(path)?.[0] ?? '';
export const normalize = (path: string): string => path;
export const isAbsolute = (path: string): boolean => path.startsWith('/');
export const relative = (_: string, to: string): string => to;
export const parse = (path: string) => ({
  dir: dirname(path),
  base: basename(path),
  ext: extname(path),
  root: '/',
  name: basename(path),
});
export const posix = {
  sep,
  join,
  resolve,
  dirname,
  basename,
  extname,
  normalize,
  isAbsolute,
  relative,
  parse,
};
export default { ...posix, posix };
