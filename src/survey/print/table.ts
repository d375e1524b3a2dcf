import { count, list } from '../../core/print';
import type { Cut } from '../cuts';
import { isHard, type Mark } from '../graph';
import type { FolderSurvey } from '../index';
import { fit } from './fit';
import { printProblems } from './tree';
import type { Colours } from './colours';

/** A cut that helps several components. */
export interface SharedCut {
  readonly line: string;
  readonly file: string | undefined;
  /** The components that need it no longer. */
  readonly components: readonly string[];
  /** How many modules go, of all of them together. */
  readonly modules: number;
}

/** The cuts that would help most, over all components of a folder. */
export function shareCuts({ heaviest }: FolderSurvey, most = 10): readonly SharedCut[] {
  const found = new Map<string, { cut: Cut; components: string[]; modules: number; weight: number }>();
  for (const survey of heaviest) {
    for (const cut of survey.cuts) {
      const key = `${cut.node.file}\0${cut.node.kind}\0${cut.node.name}`;
      const known = found.get(key) ?? { cut, components: [], modules: 0, weight: 0 };
      known.components.push(survey.subject.unit.name);
      known.modules += cut.modules;
      known.weight += cut.modules + 3 * cut.gone.length + 1;
      found.set(key, known);
    }
  }
  return [...found.values()]
    .sort((a, b) => b.weight - a.weight)
    .slice(0, most)
    .map(({ cut, components, modules }) => ({
      ...{ line: lineFor(cut, components.length), file: cut.node.file, components, modules },
    }));
}

// A path is right for one component only.
const lineFor = ({ line, node, isLoaded }: Cut, components: number): string =>
  isLoaded && components > 1 && node.file ? `swap ${node.name} of ${node.file}` : line;

const nameWidth = 24;
const placeWidth = 32;
const shortMarks: Partial<Record<Mark, string>> = { 'global state': 'global', 'on load': 'load' };

/** All components of a folder with what each leans on, for people to read on a terminal. */
export function printFolder(folder: FolderSurvey, colours: Colours): string {
  const { bold, dim, red, yellow, green } = colours;
  const { components, project, problems, circles, heaviest } = folder;
  const name = project.nameOf(folder.folder) || '.';
  const rows = components.map(({ subject, file, modules, notable, marks }) => {
    const { name: component, line } = subject.unit;
    const hard = notable.filter(isHard).length;
    const figures = `${String(modules).padStart(4)} ${String(hard).padStart(4)}`;
    const words = marks.map((mark) => shortMarks[mark] ?? mark).join(' ');
    const place = fit(`${file}:${line}`, placeWidth);
    return `${fit(component, nameWidth)} ${dim(place)} ${figures}  ${red(words)}`.trimEnd();
  });
  const cuts = shareCuts(folder);
  const block = (title: string, lines: readonly string[]) =>
    lines.length === 0 ? [] : ['', bold(title), ...lines];
  return [
    `${bold(count(components.length, 'component'))} in ${name}`,
    '',
    dim(`${'component'.padEnd(nameWidth)} ${'where'.padEnd(placeWidth)} uses hard  what is hard`),
    ...rows,
    ...block(
      components.length > heaviest.length
        ? `Cuts that would help most, for the ${heaviest.length} heaviest`
        : 'Cuts that would help most',
      cuts.map(
        ({ line, components, modules }) =>
          `  ${green(line)}\n      ${dim(`for ${list([...new Set(components)], 3)}${modules > 0 ? `; ${count(modules, 'module')} less in all` : ''}`)}`,
      ),
    ),
    ...block(
      'Files that load each other',
      circles.slice(0, 20).map((files) => `  ${yellow([...files, files[0]].join(' → '))}`),
    ),
    ...printProblems(problems, colours),
    '',
  ].join('\n');
}
