// What Jest runs is made of an Angular application's files: by ours file by file, by the framework as a whole.
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { createCompilerHost, createProgram, readConfiguration } from '@angular/compiler-cli';
import { compare } from './measure.mjs';

const { process: transform } = createRequire(import.meta.url)('../dist/angular-transform.cjs');
const folder = 'examples/angular-apiary/src';
const files = readdirSync(folder)
  // What declares states is made of this library, too, and not of the application alone.
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.states.ts'))
  .map((name) => resolve(join(folder, name)));

export async function transforming() {
  const { options } = readConfiguration('examples/angular-apiary/tsconfig.json');
  const compile = () => {
    const host = createCompilerHost({ options });
    host.writeFile = () => undefined;
    const program = createProgram({ rootNames: files, options, host });
    program.emit({
      emitCallback: (args) =>
        args.program.emit(
          undefined,
          args.writeFile ?? host.writeFile,
          undefined,
          undefined,
          args.customTransformers,
        ),
    });
  };
  const ours = () => {
    for (const file of files) transform(readFileSync(file, 'utf8'), file, {});
  };
  const result = await compare({ ours, floor: compile, rounds: 9 });
  return [
    {
      name: `turning the ${files.length} files of the Angular example into what Jest runs`,
      against: "the framework's own compiler",
      goal: 1,
      ...result,
    },
  ];
}
