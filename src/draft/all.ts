import { existsSync, readdirSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { SimulacraError } from '../core/errors';
import { survey, type FolderSurvey } from '../survey/index';
import type { Subject } from '../survey/subject';
import { isBare } from './bare';
import { targetOf, type Drafting } from './index';
import type { Outcome } from './outcome';
import { refuse } from './errors';
import { exportedAs } from './exported';
import type { Needed } from './value';

/** What became of one component of a folder. */
export type Row =
  | { readonly kind: 'drafted'; readonly outcome: Outcome }
  /** It has a test already, or no test can import it. */
  | { readonly kind: 'skipped'; readonly component: string; readonly source: string; readonly why: string }
  | { readonly kind: 'broken'; readonly component: string; readonly source: string; readonly why: string };

/** Drafts all components of a folder, several at once. @throws SIM-SURVEY-…, SIM-DRAFT-OPTION */
export async function draftAll(
  drafting: Drafting,
  folder: string,
  lanes: number,
  done: (row: Row, at: number, of: number) => void,
): Promise<readonly Row[]> {
  const found = await survey(folder, drafting.from);
  if (!('components' in found))
    return refuse('SIM-DRAFT-OPTION', { option: '--all', given: folder, wanted: 'a folder' });
  const subjects = [...found.components]
    .map(({ subject }) => subject)
    .sort((a, b) => (a.file < b.file ? -1 : a.file > b.file ? 1 : a.unit.line - b.unit.line));
  const rows: Row[] = [];
  const waiting = [...subjects];
  await Promise.all(
    Array.from({ length: lanes }, async (_, lane) => {
      for (let subject = waiting.shift(); subject; subject = waiting.shift()) {
        const row = await draftOne(drafting, found, subject, lane);
        rows.push(row);
        done(row, rows.length, subjects.length);
      }
    }),
  );
  return rows;
}

async function draftOne(
  drafting: Drafting,
  found: FolderSurvey,
  subject: Subject,
  lane: number,
): Promise<Row> {
  const { file, unit } = subject;
  const about = { component: unit.name, source: found.project.nameOf(file) };
  const component = exportedAs(found.project, file, unit.name);
  if (!component) return { kind: 'skipped', ...about, why: 'it is not exported' };
  if (isBare(found.project, file)) return { kind: 'skipped', ...about, why: 'it has no template of its own' };
  const tested = testOf(file, unit.name) ?? targetThere(drafting, subject, component);
  if (tested !== undefined) return { kind: 'skipped', ...about, why: `${tested} is there` };
  try {
    return { kind: 'drafted', outcome: await drafting.draftSurveyed(found.surveyOf(subject), lane) };
  } catch (failure) {
    drafting.options.stopped.throwIfAborted();
    if (failure instanceof SimulacraError && failure.code === 'SIM-DRAFT-RUNNER') throw failure;
    return { kind: 'broken', ...about, why: failure instanceof Error ? failure.message : String(failure) };
  }
}

const ofTests = /\.(test|spec|states)\.[cm]?[jt]sx?$/;

/** A file beside it that tests it, by its name. */
function testOf(file: string, component: string): string | undefined {
  const stem = basename(file).replace(/\.\w+$/, '');
  return readdirSync(dirname(file)).find((name) => {
    const tested = ofTests.test(name) ? name.replace(ofTests, '') : undefined;
    return tested === component || (tested === stem && plain(stem) === plain(component));
  });
}

const plain = (name: string): string => name.replace(/[-_.]/g, '').toLowerCase();

function targetThere({ options }: Drafting, { file, unit }: Subject, component: Needed): string | undefined {
  const target = targetOf(file, component, unit.framework ?? 'react', options.isStates);
  return existsSync(target) ? basename(target) : undefined;
}
