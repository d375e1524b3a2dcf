import { join } from 'node:path';
import { Builder } from './build';
import { FactsCache } from './cache';
import { findCuts, type Cut } from './cuts';
import {
  filesUsed,
  isHard,
  marksReached,
  type Graph,
  type Mark,
  type Problem,
  type SurveyNode,
} from './graph';
import { Linker } from './link';
import { findRoot, Project } from './project';
import { Reach, type Reached } from './reach';
import { componentsIn, filesAsked, findAsked, type Subject } from './subject';

/** What one component leans on. */
export interface Survey {
  readonly subject: Subject;
  /** Other components that the same file exports. */
  readonly others: readonly string[];
  readonly graph: Graph;
  readonly reached: ReadonlyMap<SurveyNode, ReadonlySet<Mark>>;
  readonly cuts: readonly Cut[];
  /** How many files of the project it is made of. */
  readonly modules: number;
  readonly project: Project;
}

/** One component of a folder, in figures. */
export interface ComponentRow extends Reached {
  readonly subject: Subject;
  /** Where it is, from where the user is. */
  readonly file: string;
}

/** How much there is to prepare: modules, and three for each thing that is hard. */
export const weightOf = ({ modules, notable }: Reached): number =>
  modules + 3 * notable.filter(isHard).length;

/** What the components of a folder lean on. */
export interface FolderSurvey {
  readonly folder: string;
  readonly components: readonly ComponentRow[];
  /** The heaviest components, each with where to cut. */
  readonly heaviest: readonly Survey[];
  graphOf(subject: Subject): Graph;
  /** All that is said of one of them. */
  surveyOf(subject: Subject): Survey;
  readonly problems: readonly Problem[];
  /** Files that load each other, each circle once. */
  readonly circles: readonly (readonly string[])[];
  readonly project: Project;
}

/**
 * Reads what a component leans on, without running it; or what all components of a folder do.
 *
 * @param asked a file, `file#Component`, a folder, or the name of a component
 * @param from the folder that a path is relative to
 * @throws SIM-SURVEY-MISSING, SIM-SURVEY-NONE, SIM-SURVEY-WHICH, SIM-SURVEY-UNREAD, SIM-PARSER
 */
export async function survey(
  asked: string,
  from: string,
  progress: (done: number, of: number) => void = () => undefined,
): Promise<Survey | FolderSurvey> {
  const root = findRoot(from);
  const cache = new FactsCache(join(root, 'node_modules', '.cache', 'simulacra', 'survey.json'));
  const project = new Project(root, from, cache);
  const linker = new Linker(project);
  // A name is looked for in all files, and a folder is all of them.
  const files = filesAsked(project, asked, from);
  await project.readAll(files, (done) => progress(done, files.length));
  const found = findAsked(linker, asked, from);
  const result =
    found.kind === 'one'
      ? surveyOne(
          new Builder(linker),
          found.subject,
          found.others.map(({ name }) => name),
        )
      : surveyFolder(linker, found.folder, found.files);
  cache.save();
  return result;
}

function surveyOne(builder: Builder, subject: Subject, others: readonly string[]): Survey {
  const graph = builder.build(subject.file, subject.unit);
  return {
    ...{ subject, others, graph, project: builder.linker.project },
    reached: marksReached(graph.nodes),
    cuts: findCuts(graph),
    modules: filesUsed(graph.nodes).size,
  };
}

function surveyFolder(linker: Linker, folder: string, files: readonly string[]): FolderSurvey {
  const subjects = files.flatMap((file) =>
    componentsIn(linker, file).map((unit): Subject => ({ file, unit })),
  );
  const { project } = linker;
  const builder = new Builder(linker);
  const roots = subjects.map(({ file, unit }) => builder.follow(file, unit));
  builder.settleClients();
  const reach = new Reach(builder.nodes);
  const components = subjects
    .map((subject, index): ComponentRow => ({
      subject,
      file: roots[index]!.file!,
      ...reach.of(roots[index]!),
    }))
    .sort((a, b) => weightOf(b) - weightOf(a));
  const unread = files.flatMap((file): Problem[] => {
    const { unread: found } = project.facts(file);
    return found ? [{ file: project.nameOf(file), line: found.line, why: `not read: ${found.why}` }] : [];
  });
  return {
    ...{ folder, components, project },
    graphOf: ({ file, unit }) => builder.build(file, unit),
    surveyOf: (subject) => {
      const others = subjects.filter((one) => one.file === subject.file && one.unit !== subject.unit);
      return surveyOne(
        builder,
        subject,
        others.map(({ unit }) => unit.name),
      );
    },
    heaviest: components.slice(0, mostCut).map(({ subject }) => surveyOne(builder, subject, [])),
    problems: distinct([...unread, ...builder.problems]),
    circles: findCircles(project, files),
  };
}

// Where to cut is looked for where it helps most.
const mostCut = 40;

const distinct = (problems: readonly Problem[]): Problem[] => [
  ...new Map(problems.map((one) => [`${one.file}:${one.line}:${one.why}`, one])).values(),
];

/** Files that load each other when they are loaded. */
function findCircles(project: Project, files: readonly string[]): readonly (readonly string[])[] {
  const state = new Map<string, 'open' | 'done'>();
  const circles = new Map<string, readonly string[]>();
  const way: string[] = [];
  const look = (file: string): void => {
    state.set(file, 'open');
    way.push(file);
    for (const { specifier, isLazy } of project.facts(file).imports) {
      const target = isLazy ? undefined : project.resolve(file, specifier);
      if (target?.kind !== 'file') continue;
      const known = state.get(target.file);
      if (known === undefined) look(target.file);
      else if (known === 'open') {
        const circle = way.slice(way.indexOf(target.file)).map((one) => project.nameOf(one));
        circles.set([...circle].sort().join('\0'), circle);
      }
    }
    way.pop();
    state.set(file, 'done');
  };
  for (const file of files) if (!state.has(file)) look(file);
  return [...circles.values()];
}
