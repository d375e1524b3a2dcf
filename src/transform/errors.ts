import { refusing, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';

/** Failures of loading a framework's files. */
export const registry = {
  'SIM-TYPESCRIPT': (f: { file: string; version: string | undefined }): Report => ({
    head:
      f.version === undefined
        ? `${f.file} cannot be loaded: the package typescript is missing.`
        : `${f.file} cannot be loaded: TypeScript ${f.version} can no longer be called by other programs.`,
    next: [
      f.version === undefined
        ? 'Install it:   npm install --save-dev typescript'
        : 'Install the one that can beside it:   npm install --save-dev @typescript/typescript6',
    ],
  }),
};

export const refuse: Refuse<typeof registry> = refusing(registry);
