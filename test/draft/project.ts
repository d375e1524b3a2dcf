import { mkdirSync, readdirSync, readFileSync, symlinkSync, existsSync } from 'node:fs';
import { join } from 'node:path';
import { makeProject as makeOwn, root } from '../sheet/project';

export const cli = join(root, 'dist/cli.js');
const tsconfig = JSON.stringify({
  compilerOptions: {
    ...{ target: 'ES2022', module: 'ESNext', moduleResolution: 'Bundler', jsx: 'react-jsx', strict: true },
    ...{ skipLibCheck: true, experimentalDecorators: true, lib: ['ES2023', 'DOM', 'DOM.Iterable'] },
  },
  include: ['src'],
});

/** A project of its own, that finds the packages of this one and this library. */
export function makeProject(files: Readonly<Record<string, string>>) {
  const project = makeOwn({
    'package.json': '{ "name": "apiary", "type": "module" }',
    'tsconfig.json': tsconfig,
    ...files,
  });
  mkdirSync(project.path('node_modules'), { recursive: true });
  symlinkSync(root, project.path('node_modules/simulacra'));
  return {
    ...project,
    draft: (...args: string[]) => project.run(cli, ['draft', ...args]),
    read: (file: string) => (existsSync(project.path(file)) ? readFileSync(project.path(file), 'utf8') : ''),
    list: (folder = 'src') => readdirSync(project.path(folder)).sort(),
  };
}

/** Components of the corpus, with what they need, as files of a project. */
export const components = (framework: string, ...files: readonly string[]): Record<string, string> =>
  Object.fromEntries(
    files.map((file) => [`src/${file}`, readFileSync(join(__dirname, framework, file), 'utf8')]),
  );

/** What a draft says, without the line that it remembers its own lines by. */
export const withoutMemory = (text: string): string => text.replace(/\n\/\/ Drafted by [^\n]*\n$/, '');
