import { basename } from 'node:path';

interface Options {
  readonly conditions?: readonly string[];
  readonly defaultResolver: (path: string, options: Options) => string;
}

const forServers = /(^|[.-])(server|ssr)([.-]|$)/;

/**
 * Finds the file of a module as Jest does, but for packages that hand a CommonJS runner what they have for
 * servers: a page needs what they have for browsers.
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
