import type { Draft } from './model';
import type { Known } from './plan';

/**
 * Loads something else first, where files import each other in a circle: which of them is loaded first decides
 * whether what they need of each other is there.
 */
export function loadedFirst({ survey }: Known, draft: Draft): Draft | undefined {
  const { project, subject } = survey;
  const importsOf = (file: string): readonly string[] =>
    project.facts(file).imports.flatMap(({ specifier, isLazy }) => {
      const target = project.resolve(file, specifier);
      return target.kind === 'file' && !isLazy ? [target.file] : [];
    });
  const leadsBack = (start: string): boolean => {
    const seen = new Set([start]);
    for (const file of seen) for (const next of importsOf(file)) seen.add(next);
    return seen.has(subject.file);
  };
  const circle = importsOf(subject.file).filter((file) => file !== subject.file && leadsBack(file));
  const next = circle[draft.loadedFirst === undefined ? 0 : circle.indexOf(draft.loadedFirst) + 1];
  return next === undefined ? undefined : { ...draft, loadedFirst: next };
}
