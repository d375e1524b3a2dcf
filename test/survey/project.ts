import { join } from 'node:path';
import { makeProject as makeOwn, root } from '../sheet/project';

const cli = join(root, 'dist/cli.js');

/** A project of its own, that finds the packages of this one. */
export function makeProject(files: Readonly<Record<string, string>>) {
  const project = makeOwn({ 'package.json': '{ "name": "apiary", "type": "module" }', ...files });
  return { ...project, survey: (...args: string[]) => project.run(cli, ['survey', ...args]) };
}

export type SurveyProject = ReturnType<typeof makeProject>;

/** What a component leans on, as data. */
export interface ComponentData {
  readonly name: string;
  readonly file: string;
  readonly framework: string;
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly slots: readonly string[];
  readonly renders: readonly string[];
  readonly modules: number;
  readonly hard: readonly string[];
  readonly nodes: readonly {
    readonly id: number;
    readonly kind: string;
    readonly name: string;
    readonly file?: string;
    readonly package?: string;
    readonly hard: readonly string[];
  }[];
  readonly edges: readonly {
    readonly from: number;
    readonly to: number;
    readonly how: string;
    readonly isLazy: boolean;
    readonly hasRef: boolean;
  }[];
  readonly cuts: readonly { readonly line: string; readonly modules: number; readonly how: string }[];
  readonly problems: readonly { readonly file: string; readonly line: number; readonly why: string }[];
}

export async function dataOf(project: SurveyProject, asked: string): Promise<ComponentData> {
  const { code, stdout, stderr } = await project.survey(asked, '--json');
  if (code !== 0) throw new Error(stderr);
  return (JSON.parse(stdout) as { component: ComponentData }).component;
}

/** A component of a folder, as data. */
export interface RowData extends Pick<ComponentData, 'name' | 'file' | 'hard'> {
  readonly leans: ComponentData['nodes'];
}

/** `kind name` of all that is hard, or that a test would have to prepare. */
export const leavesOf = ({ leans }: RowData): string[] =>
  leans.map(({ kind, name }) => `${kind} ${name}`).sort();
