import { readFileSync } from 'node:fs';
import type { Project } from '../survey/project';

/** A single-file component that only holds options for others: there is nothing that it renders. */
export function isBare(project: Project, file: string): boolean {
  if (!file.endsWith('.vue')) return false;
  const source = readFileSync(file, 'utf8');
  if (/<template\b|\brender\s*[(:]|\bsetup\b/.test(source)) return false;
  const base = /\bextends:\s*([A-Za-z_$][\w$]*)/.exec(source)?.[1];
  const from = project.facts(file).imports.find(({ names }) => names.some(({ local }) => local === base));
  const target = from && project.resolve(file, from.specifier);
  if (target?.kind === 'file') return target.file !== file && isBare(project, target.file);
  const entry = target?.kind === 'package' ? target.entry : undefined;
  return entry === undefined || !/\brender\s*[(:=]/.test(readFileSync(entry, 'utf8'));
}

/** Components that are made of a file's options. */
export const extendersOf = (project: Project, file: string): readonly string[] =>
  project
    .importersOf(file)
    .flatMap((one) => project.facts(one).units.find(({ kind }) => kind === 'component')?.name ?? []);
