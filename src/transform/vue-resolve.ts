import { basename } from 'node:path';

interface Options {
  readonly conditions?: readonly string[];
  readonly defaultResolver: (path: string, options: Options) => string;
}

const forServers = /(^|[.-])(server|ssr)([.-]|$)/;

/**
 * Resolves modules as Jest does, except for packages that give their server build to a CommonJS runner. Tests
 * need the browser build.
 *
 * @see https://jestjs.io/docs/configuration#resolver-string
 */
export function sync(path: string, options: Options): string {
  const found = options.defaultResolver(path, options);
  if (!/node_modules/.test(found) || !forServers.test(basename(found)) || /@vue[\\/]/.test(found))
    return found;
  try {
    const conditions = ['browser', 'import', 'default'];
    return options.defaultResolver(path, { ...options, conditions });
  } catch {
    return found;
  }
}
