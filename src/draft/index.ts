import type { DraftOptions, Outcome } from './outcome';
import { existsSync, readFileSync } from 'node:fs';
import { basename, dirname, extname, join } from 'node:path';
import { type Survey, survey } from '../survey/index';
import { findRoot } from '../survey/project';
import { extendersOf, isBare } from './bare';
import { refuse } from './errors';
import { exportedAs } from './exported';
import { Making } from './making';
import type { Known } from './plan';
import { printOwnConfig, readRunConfig, type RunConfig } from './run/config';
import { DraftRunner } from './run/runner';
import { readProps } from './types/props';
import { Types } from './types/service';
import type { Needed } from './value';
import { endingOf, styleOf } from './write/format';
import type { Writing } from './write/print';
import { isDrafted } from './write/update';

/** What the drafts of one project share. */
export class Drafting {
  readonly root: string;
  #types: Types | undefined;
  readonly #runners = new Map<string, DraftRunner>();

  constructor(
    readonly from: string,
    readonly options: DraftOptions,
  ) {
    this.root = findRoot(from);
  }

  /** Drafts one component. @throws SIM-SURVEY-…, SIM-DRAFT-… */
  async draft(asked: string): Promise<Outcome> {
    const found = await survey(asked, this.from);
    if ('components' in found) return refuse('SIM-DRAFT-FOLDER', { asked });
    return this.draftSurveyed(found);
  }

  /** @param lane which of several processes runs it */
  async draftSurveyed(found: Survey, lane = 0): Promise<Outcome> {
    const begun = performance.now();
    const component = componentOf(found);
    const framework = found.subject.unit.framework ?? 'react';
    const target = targetOf(found.subject.file, component, framework, this.options.isStates);
    if (!this.options.isForced && !this.options.isPrinted)
      refuseWritten(target, found.project.nameOf(target));
    refuseBare(found);
    const config = await readRunConfig(this.root, target, framework);
    const runner = this.#runnerFor(config, lane);
    const types = (this.#types ??= Types.of(this.root, found.subject.file));
    const props =
      (types && readProps(types, found.subject.file, component.name, framework)) ?? propsByName(found);
    const known: Known = { survey: found, types, props, component, from: this.from };
    const style = await styleOf(this.root, target);
    const writing: Writing = {
      ...style,
      target,
      ending: endingOf(found, found.subject.file),
      hasGlobals: config.hasGlobals,
    };
    const making = new Making(known, runner, writing, this.options);
    const made = await making.make();
    const source = found.project.nameOf(found.subject.file);
    return {
      ...made,
      component: component.local ?? component.name,
      source,
      target,
      ...(config.isOurs && {
        config: { file: join(this.root, 'jest.config.cjs'), text: printOwnConfig(this.root, framework) },
      }),
      milliseconds: performance.now() - begun,
    };
  }

  #runnerFor({ config }: RunConfig, lane: number): DraftRunner {
    const key = `${lane} ${config}`;
    const known = this.#runners.get(key);
    if (known) return known;
    const runner = new DraftRunner(this.root, config, this.options.limits, this.options.own);
    this.#runners.set(key, runner);
    return runner;
  }

  close(): void {
    for (const runner of this.#runners.values()) runner.close();
    this.#runners.clear();
  }
}

/** How tests import the component. @throws SIM-DRAFT-EXPORT */
function componentOf({ subject, project }: Survey): Needed {
  const { file, unit } = subject;
  return (
    exportedAs(project, file, unit.name) ??
    refuse('SIM-DRAFT-EXPORT', { component: unit.name, file: project.nameOf(file) })
  );
}

export function targetOf(
  file: string,
  { name, local }: Needed,
  framework: string,
  isStates: boolean,
): string {
  const stem = basename(file, extname(file));
  const called = local ?? name;
  const isMain =
    stem.replace(/[-_.]/g, '').toLowerCase() === called.toLowerCase() ||
    name === 'default' ||
    framework !== 'react';
  const ending =
    framework === 'react'
      ? /\.[jt]sx?$/.exec(file)?.[0].startsWith('.j')
        ? '.jsx'
        : '.tsx'
      : /lang="ts"|\.ts$/.test(file.endsWith('.vue') ? readFileSync(file, 'utf8') : file)
        ? '.ts'
        : '.js';
  return join(dirname(file), `${isMain ? stem : called}.${isStates ? 'states' : 'test'}${ending}`);
}

/** @throws SIM-DRAFT-BARE */
function refuseBare({ project, subject: { file, unit } }: Survey): void {
  if (isBare(project, file))
    refuse('SIM-DRAFT-BARE', {
      component: unit.name,
      file: project.nameOf(file),
      by: extendersOf(project, file),
    });
}

/** @throws SIM-DRAFT-EXISTS for what a person has written */
function refuseWritten(target: string, file: string): void {
  if (existsSync(target) && !isDrafted(readFileSync(target, 'utf8'))) refuse('SIM-DRAFT-EXISTS', { file });
}

const propsByName = ({ subject }: Survey) =>
  (subject.unit.inputs ?? []).map((name) => ({
    name,
    isRequired: false,
    value: { kind: 'text', text: name } as const,
    others: [],
    isCallback: /^on[A-Z]/.test(name),
  }));
