import { count } from '../../core/print';
import type { SurveyNode } from '../graph';
import type { Change, Changes } from '../since';
import type { Colours } from './colours';
import { partData } from './data';

/** What components lean on now and did not before, for people or as data. */
export function printChanges(
  { changes, problems }: Changes,
  ref: string,
  isData: boolean,
  { bold, dim, green, red, yellow }: Colours,
): string {
  if (isData)
    return `${JSON.stringify({ version: 1, since: ref, changes: changes.map(changeData), problems }, undefined, 2)}\n`;
  const passedBy = problems.map(({ file, line, why }) => `\nPassed by  ${yellow(`${file}:${line}`)}  ${why}`);
  const end = passedBy.length > 0 ? `${passedBy.join('')}\n` : '';
  if (changes.length === 0) return `No component leans on anything else than at ${ref}.\n${end}`;
  const line = (sign: string, { own, kind, name, package: from, file, line: at }: SurveyNode) => {
    const hard = own.length > 0 ? `  ${red(own.join(', '))}` : '';
    return `  ${sign} ${name}  ${dim(`${kind}, ${from ?? `${file}:${at}`}`)}${hard}`;
  };
  const blocks = changes.map(({ component, file, isNew, added, removed }) =>
    [
      `${bold(component)}  ${dim(isNew ? `${file}, new` : file)}`,
      ...added.map((node) => line(green('+'), node)),
      ...removed.map((node) => line(red('−'), node)),
    ].join('\n'),
  );
  return `${count(changes.length, 'component')} changed since ${ref}\n\n${blocks.join('\n\n')}\n${end}`;
}

const changeData = ({ component, file, isNew, added, removed }: Change): object => ({
  ...{ component, file, isNew },
  ...{ added: added.map(partData), removed: removed.map(partData) },
});
