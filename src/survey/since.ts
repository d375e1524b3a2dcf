import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { SimulacraError } from '../core/errors/error';
import { refuse } from './errors';
import type { Graph, Problem, SurveyNode } from './graph';
import { survey, type FolderSurvey, type Survey } from './index';
import { findRoot } from './project';

/** What a component leans on now and did not before, or no longer. */
export interface Change {
  readonly component: string;
  readonly file: string;
  readonly isNew: boolean;
  readonly added: readonly SurveyNode[];
  readonly removed: readonly SurveyNode[];
}

export interface Changes {
  readonly changes: readonly Change[];
  /** What cannot be read now, and so is not compared. */
  readonly problems: readonly Problem[];
}

/**
 * Compares what components lean on with what they did at a commit, a tag or a branch.
 *
 * @throws SIM-SURVEY-SINCE where that cannot be read, and what survey() throws
 */
export async function surveySince(asked: string, from: string, ref: string): Promise<Changes> {
  const now = await survey(asked, from);
  const root = findRoot(from);
  const place = join(root, 'node_modules', '.cache', 'simulacra');
  mkdirSync(place, { recursive: true });
  const copy = mkdtempSync(join(place, 'since-'));
  try {
    const top = git(root, ref, ['rev-parse', '--show-toplevel']).trim();
    checkOut(top, ref, copy);
    const before = await surveyBefore(asked, join(copy, relative(top, from)));
    return {
      changes: compare(now, before),
      problems: 'components' in now ? now.problems : now.graph.problems,
    };
  } finally {
    rmSync(copy, { recursive: true, force: true });
  }
}

// What was not there yet is new as a whole.
async function surveyBefore(asked: string, from: string): Promise<Survey | FolderSurvey | undefined> {
  try {
    return await survey(asked, from);
  } catch (failure) {
    if (failure instanceof SimulacraError && failure.code !== 'SIM-PARSER') return undefined;
    throw failure;
  }
}

function git(
  folder: string,
  ref: string,
  args: readonly string[],
  env: NodeJS.ProcessEnv = process.env,
): string {
  const { status, stdout, stderr, error } = spawnSync('git', args, { cwd: folder, env, encoding: 'utf8' });
  if (status === 0) return stdout;
  const [why = 'git failed'] = (error?.message ?? stderr).trim().split('\n');
  return refuse('SIM-SURVEY-SINCE', { ref, why: why.replace(/^fatal: /, '').replace(/\.$/, '') });
}

// With an index of its own, so that what the user has staged stays as it is.
function checkOut(top: string, ref: string, folder: string): void {
  const commit = git(top, ref, ['rev-parse', '--verify', '--end-of-options', `${ref}^{commit}`]).trim();
  const env = { ...process.env, GIT_INDEX_FILE: join(folder, '.index') };
  git(top, ref, ['read-tree', commit], env);
  git(top, ref, ['checkout-index', '--all', `--prefix=${folder}/`], env);
}

/** What each component leans on, by where it is and its name. */
function listed(found: Survey | FolderSurvey | undefined): ReadonlyMap<string, Graph> {
  if (found === undefined) return new Map();
  const graphs =
    'components' in found ? found.components.map(({ subject }) => found.graphOf(subject)) : [found.graph];
  return new Map(graphs.map((graph) => [`${graph.root.file}#${graph.root.name}`, graph]));
}

function compare(now: Survey | FolderSurvey, before: Survey | FolderSurvey | undefined): readonly Change[] {
  const known = listed(before);
  return [...listed(now)].flatMap(([key, graph]): readonly Change[] => {
    const old = known.get(key);
    const was = old ? partsOf(old) : new Map<string, SurveyNode>();
    const is = partsOf(graph);
    const added = [...is].filter(([part]) => !was.has(part)).map(([, node]) => node);
    const removed = [...was].filter(([part]) => !is.has(part)).map(([, node]) => node);
    const { file = '', name } = graph.root;
    const change = { component: name, file, isNew: old === undefined, added, removed };
    return old === undefined || added.length + removed.length > 0 ? [change] : [];
  });
}

const named = /^(component|hook|composable|directive|pipe|context|token|service|store)$/;

// A line may move without anything changing, and plain functions come and go.
const partsOf = ({ root, nodes }: Graph): Map<string, SurveyNode> =>
  new Map(
    nodes
      .filter((node) => node !== root && (named.test(node.kind) || node.own.length > 0))
      .map((node) => [`${node.kind}\0${node.name}\0${node.package ?? node.file}`, node]),
  );
