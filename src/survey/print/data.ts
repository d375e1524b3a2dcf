import type { Cut } from '../cuts';
import type { SurveyNode } from '../graph';
import { weightOf, type FolderSurvey, type Survey } from '../index';
import { isNotable, type Reached } from '../reach';
import type { Subject } from '../subject';
import { shareCuts } from './table';

/** What a survey found as plain data; docs/survey.schema.json describes it. */
export function surveyData(survey: Survey | FolderSurvey): object {
  return {
    version: 1,
    ...('components' in survey ? folderData(survey) : { component: componentData(survey) }),
  };
}

function folderData(folder: FolderSurvey): object {
  return {
    folder: folder.project.nameOf(folder.folder) || '.',
    components: folder.components.map((row) => ({
      ...subjectData(row.subject, row.file, row),
      leans: row.notable.map(partData),
    })),
    cuts: shareCuts(folder),
    circles: folder.circles,
    problems: folder.problems,
  };
}

/** One thing that is leaned on, by itself. */
export const partData = ({ kind, name, own, package: from, file, line }: SurveyNode): object =>
  from === undefined ? { kind, name, file, line, hard: own } : { kind, name, package: from, hard: own };

function subjectData({ unit }: Subject, file: string, reached: Reached): object {
  const { inputs = [], outputs = [], slots = [], renders = [] } = unit;
  return {
    ...{ name: unit.name, framework: unit.framework ?? 'react', file, line: unit.line },
    ...{ inputs, outputs, slots, renders },
    ...{ modules: reached.modules, weight: weightOf(reached), hard: reached.marks },
  };
}

function componentData(survey: Survey): object {
  const { subject, graph, reached, cuts, modules, others } = survey;
  const notable = graph.nodes.filter(isNotable);
  const marks = [...(reached.get(graph.root) ?? [])];
  return {
    ...subjectData(subject, graph.root.file ?? '', { modules, notable, marks }),
    others,
    nodes: graph.nodes.map((node) => ({
      ...{ id: node.id, kind: node.kind, name: node.name },
      ...(node.package === undefined && { file: node.file, line: node.line }),
      ...(node.package !== undefined && { package: node.package, bytes: node.bytes }),
      ...{ hard: node.own, leadsTo: [...(reached.get(node) ?? [])] },
    })),
    edges: graph.nodes.flatMap(({ id, edges }) =>
      edges.map(({ to, how, line, isLazy, hasRef }) => ({
        ...{ from: id, to: to.id, how, line, isLazy: isLazy ?? false, hasRef: hasRef ?? false },
      })),
    ),
    cuts: cuts.map(cutData),
    problems: graph.problems,
  };
}

const cutData = ({ node, line, modules, of, isLoaded, gone, still, instead }: Cut): object => ({
  ...{ node: node.id, line, modules, of },
  ...{
    how: isLoaded ? 'not loaded' : 'not used',
    gone: gone.map(({ id }) => id),
    still: still.map(({ id }) => id),
    ...(instead !== undefined && { instead }),
  },
});
