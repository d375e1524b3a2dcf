import type { Cut } from '../cuts';
import type { FolderSurvey, Survey } from '../index';
import { shareCuts, weightOf } from './table';

/** What a survey found as plain data; docs/survey.schema.json describes it. */
export function surveyData(survey: Survey | FolderSurvey): object {
  return { version: 1, ...('surveys' in survey ? folderData(survey) : { component: componentData(survey) }) };
}

function folderData(folder: FolderSurvey): object {
  return {
    folder: folder.project.nameOf(folder.folder) || '.',
    components: folder.surveys.map(componentData),
    cuts: shareCuts(folder),
    circles: folder.circles,
    problems: folder.problems,
  };
}

function componentData(survey: Survey): object {
  const { subject, graph, reached, cuts, modules, others } = survey;
  const { unit } = subject;
  const { inputs = [], outputs = [], slots = [], renders = [] } = unit;
  return {
    ...{ name: unit.name, framework: unit.framework ?? 'react', file: graph.root.file, line: unit.line },
    ...{ inputs, outputs, slots, renders, others, modules, weight: weightOf(survey) },
    hard: [...(reached.get(graph.root) ?? [])],
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

const cutData = ({ node, line, modules, of, isLoaded, gone }: Cut): object => ({
  ...{ node: node.id, line, modules, of },
  ...{ how: isLoaded ? 'not loaded' : 'not used', gone: gone.map(({ id }) => id) },
});
