import { filesOf, type Known } from '../plan';
import { typeOfExport } from '../types/props';
import { samplingIn } from '../types/sampling';
import { packageOf } from '../../survey/project';
import type { Needed } from '../value';

/** What a package lends that the component's own files import: a provider, by its name. */
export function lentBy(
  known: Known,
  name: string,
): { readonly needed: Needed; readonly file: string } | undefined {
  const { types, survey } = known;
  const { file: from, unit } = survey.subject;
  if (!types) return undefined;
  for (const specifier of specifiersOf(known)) {
    const file = types.entryOf(specifier, from);
    const sampling = file === undefined ? undefined : samplingIn(types, file, unit.framework ?? 'react');
    if (!sampling || !typeOfExport(sampling.checker, sampling.ts, sampling.source, name)) continue;
    return { needed: { name, from: specifier }, file: file! };
  }
  return undefined;
}

/** The packages that the files import which the component is made of. */
function specifiersOf(known: Known): ReadonlySet<string> {
  const { project } = known.survey;
  const all = filesOf(known).flatMap((file) =>
    project
      .facts(file)
      .imports.filter(({ specifier }) => project.resolve(file, specifier).kind === 'package')
      .map(({ specifier }) => specifier),
  );
  return new Set(all.filter((one) => !/^(react|react-dom|vue|@angular\/core)$/.test(packageOf(one))));
}
