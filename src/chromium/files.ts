import { readFile, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { text } from 'node:stream/consumers';
import type { Plugin } from 'vite';
import { filesPath } from './told';

/* What test files ask of Node, and a page can do: paths, and reading the project's own files. */

const modules: Readonly<Record<string, readonly string[]>> = {
  fs: ['readFileSync', 'existsSync', 'promises'],
  'fs/promises': ['readFile'],
  path: [
    'sep',
    'delimiter',
    'normalize',
    'isAbsolute',
    'join',
    'resolve',
    'dirname',
    'basename',
    'extname',
    'relative',
    'parse',
    'posix',
  ],
  url: ['fileURLToPath', 'pathToFileURL'],
};
const bare = (id: string) => id.replace(/^node:/, '');

export function serveFiles(): Plugin {
  let isAllowed: (file: string) => boolean = () => false;
  return {
    name: 'simulacra-files',
    enforce: 'pre',
    resolveId: (id, importer) =>
      bare(id) in modules && importer && !importer.includes('/node_modules/')
        ? `\0node-${bare(id)}`
        : undefined,
    load(id) {
      const name = /^\0node-(.+)$/.exec(id)?.[1];
      const names = name === undefined ? undefined : modules[name];
      if (!names) return undefined;
      const from = `globalThis.simulacraGlobals.node[${JSON.stringify(name)}]`;
      return `const all = ${from};\nexport default all;\nexport const { ${names.join(', ')} } = all;\n`;
    },
    async configureServer({ middlewares, config }) {
      const { isFileLoadingAllowed } = await import('vite');
      isAllowed = (file) => isFileLoadingAllowed(config, file);
      middlewares.use((request, response, next) => {
        const { pathname, searchParams } = new URL(request.url ?? '/', 'http://localhost');
        if (pathname !== filesPath) return next();
        const file = searchParams.get('path') ?? '';
        if (request.method === 'PUT') {
          const isKept = isAllowed(file) && file.endsWith('.looks.txt');
          const kept = isKept
            ? text(request).then((words) => writeFile(file, words))
            : Promise.reject(new Error());
          return void kept.then(
            () => response.writeHead(204).end(),
            () => response.writeHead(403).end(),
          );
        }
        const bytes = isAllowed(file) ? readFile(file) : Promise.reject(new Error());
        bytes.then(
          (found) => response.end(found),
          () => response.writeHead(404).end(),
        );
      });
    },
  };
}

/** After all others: what compiles a file may not look at what was made of it before. */
export const nameFiles = (): Plugin => ({
  name: 'simulacra-file-names',
  enforce: 'post',
  // On the first line, so that all others stay where they are.
  transform: (code, id) =>
    /\b__(dirname|filename)\b/.test(code) && !/[\\/]node_modules[\\/]|^\0/.test(id)
      ? {
          code: `var __filename = ${JSON.stringify(id.replace(/\?.*/, ''))}, __dirname = ${JSON.stringify(dirname(id))}; ${code}`,
          map: null,
        }
      : undefined,
});
