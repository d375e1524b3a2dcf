// Prints what is wrong with the surface of a packed package, as JSON: two checkers, one list.
import { readFileSync } from 'node:fs';
import { checkPackage, createPackageFromTarballData } from '@arethetypeswrong/core';
import { publint } from 'publint';

const [root, tarball] = process.argv.slice(2);
const { messages } = await publint({ pkgDir: root, strict: true });
const { problems } = await checkPackage(createPackageFromTarballData(readFileSync(tarball)));
// Resolution as Node 10 had it knows no subpaths; the oldest Node that runs this is 20.
// What Node is told to `--import`, and what goes into a configuration of Vite, which is one itself.
const standardOnly = ['./seam/node', './seam/vite', './vite'];
const known = problems.filter(
  ({ kind, resolutionKind, entrypoint }) =>
    resolutionKind !== 'node10' &&
    kind !== 'InternalResolutionError' &&
    !(kind === 'CJSResolvesToESM' && standardOnly.includes(entrypoint)),
);
console.log(JSON.stringify([...messages, ...known]));
