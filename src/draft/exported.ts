import type { Project } from '../survey/project';
import type { Needed } from './value';

/** How another file imports what a file declares under a name; undefined for what it does not export itself. */
export function exportedAs(project: Project, file: string, declared: string): Needed | undefined {
  const exported = project
    .facts(file)
    .exports.find(({ local, specifier }) => local === declared && specifier === undefined);
  if (!exported) return undefined;
  return exported.name === 'default'
    ? { name: 'default', local: declared, from: file }
    : { name: exported.name, from: file };
}
