import { dirname, relative, sep } from 'node:path';
import type { Unit } from '../../survey/facts';
import { packageOf } from '../../survey/project';
import { isBare } from '../bare';
import { exportedAs } from '../exported';
import type { Known } from '../plan';
import type { Needed } from '../value';

/** A component of the project by its name, which need not be among what the subject uses: the nearest. */
export function providerOf(known: Known, name: string): Needed | undefined {
  return findComponents(known, (unit) => unit.name === name)[0];
}

/** A component of the project that puts a provider of a package around what it is given. */
export function providerFor(known: Known, packageName: string): Needed | undefined {
  return findComponents(known, (unit, file) =>
    unit.uses.some(({ name, how }) => {
      if (how !== 'rendered' || !/Provider$/.test(name)) return false;
      const { imports } = known.survey.project.facts(file);
      const from = imports.find(({ names }) => names.some(({ local }) => local === name))?.specifier;
      return from !== undefined && packageOf(from) === packageName;
    }),
  )[0];
}

/** The components of the project that fit, the nearest first. */
export function findComponents(
  { survey }: Known,
  fits: (unit: Unit, file: string) => boolean,
): readonly Needed[] {
  const { project, subject } = survey;
  const found: Needed[] = [];
  for (const file of project.list()) {
    // `YardFrame.example.tsx` is no part of the product.
    if (subject.unit.framework !== 'angular' && /\.[\w-]+\.[jt]sx?$/.test(file)) continue;
    for (const unit of project.facts(file).units) {
      if (unit.kind !== 'component' || unit.framework !== subject.unit.framework || !fits(unit, file))
        continue;
      if (unit === subject.unit || isBare(project, file)) continue;
      const needed = exportedAs(project, file, unit.name);
      if (needed) found.push(needed);
    }
  }
  const distance = ({ from }: Needed) => relative(dirname(subject.file), from).split(sep).length;
  return found.sort((a, b) => distance(a) - distance(b));
}
