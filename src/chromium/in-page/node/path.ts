/* Node's `path`, for a page: of POSIX, without a working directory. */

/** @see https://nodejs.org/api/path.html#pathnormalizepath */
export function normalize(path: string): string {
  const parts: string[] = [];
  for (const part of path.split('/')) {
    if (part === '..' && parts.length > 0 && parts.at(-1) !== '..') parts.pop();
    else if (part !== '' && part !== '.' && !(part === '..' && isAbsolute(path))) parts.push(part);
  }
  return (isAbsolute(path) ? '/' : '') + parts.join('/') || '.';
}
export const sep = '/';
export const delimiter = ':';
export const isAbsolute = (path: string): boolean => path.startsWith('/');
export const join = (...parts: string[]): string => normalize(parts.filter(Boolean).join('/'));
export const resolve = (...parts: string[]): string =>
  normalize(`/${parts.slice(Math.max(0, parts.findLastIndex(isAbsolute))).join('/')}`);
export const dirname = (path: string): string =>
  path.includes('/') ? path.replace(/\/[^/]*\/?$/, '') || '/' : '.';
export const basename = (path: string, ending = ''): string => {
  const name = path.split('/').filter(Boolean).at(-1) ?? '';
  return name.endsWith(ending) && name !== ending ? name.slice(0, name.length - ending.length) : name;
};
export const extname = (path: string): string => /[^./](\.[^./]*)$/.exec(path)?.[1] ?? '';
export function relative(from: string, to: string): string {
  const [a, b] = [from, to].map((path) => resolve(path).split('/').filter(Boolean));
  let same = 0;
  while (same < a!.length && a![same] === b![same]) same++;
  return [...a!.slice(same).map(() => '..'), ...b!.slice(same)].join('/');
}
export const parse = (path: string) => ({
  ...{ root: isAbsolute(path) ? '/' : '', dir: dirname(path), base: basename(path) },
  ...{ ext: extname(path), name: basename(path, extname(path)) },
});
const all = {
  sep,
  delimiter,
  normalize,
  isAbsolute,
  join,
  resolve,
  dirname,
  basename,
  extname,
  relative,
  parse,
};
export const posix = all;
export default { ...all, posix };
