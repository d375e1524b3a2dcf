import { dirname, relative, sep } from 'node:path';
import type { Unit } from '../../survey/facts';
import { packageOf } from '../../survey/project';
import { exportedAs } from '../exported';
import type { Known } from '../plan';
import type { Needed } from '../value';

/** A component of the project by its name, which need not be among what the subject uses: the nearest. */
export function providerOf(known: Known, name: string): Needed | undefined {
  return findComponent(known, (unit) => unit.name === name);
}

/** A component of the project that puts a provider of a package around what it is given. */
export function providerFor(known: Known, packageName: string): Needed | undefined {
  return findComponent(known, (unit, file) =>
    unit.uses.some(({ name, how }) => {
      if (how !== 'rendered' || !/Provider$/.test(name)) return false;
      const { imports } = known.survey.project.facts(file);
      const from = imports.find(({ names }) => names.some(({ local }) => local === name))?.specifier;
      return from !== undefined && packageOf(from) === packageName;
    }),
  );
}

function findComponent({ survey }: Known, fits: (unit: Unit, file: string) => boolean): Needed | undefined {
  const { project, subject } = survey;
  const found: Needed[] = [];
  for (const file of project.list()) {
    for (const unit of project.facts(file).units) {
      if (unit.kind !== 'component' || unit.framework !== subject.unit.framework || !fits(unit, file))
        continue;
      const needed = unit === subject.unit ? undefined : exportedAs(project, file, unit.name);
      if (needed) found.push(needed);
    }
  }
  const distance = ({ from }: Needed) => relative(dirname(subject.file), from).split(sep).length;
  return found.sort((a, b) => distance(a) - distance(b))[0];
}
