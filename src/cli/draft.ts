import { availableParallelism } from 'node:os';
import { existsSync, writeFileSync } from 'node:fs';
import { relative } from 'node:path';
import type { Command } from 'commander';
import { count } from '../core/print';
import { refuse } from '../draft/errors';
import { draftAll } from '../draft/all';
import { printRows } from '../draft/write/table';
import { Drafting } from '../draft/index';
import type { DraftOptions, Outcome } from '../draft/outcome';
import { readSettings, type DraftSettings } from '../draft/settings';
import { loadConfiguration } from '../serve/load';
import { findRoot } from '../survey/project';
import { codeOf, coloursOf, type Output } from './output';

interface Given {
  readonly states?: true;
  readonly print?: true;
  readonly force?: true;
  readonly all?: true;
  readonly keep?: true;
  readonly within?: string;
  readonly memory?: string;
  readonly processes?: string;
}

const examples = `
Examples:
  simulacra draft src/HiveBoard.tsx           write src/HiveBoard.test.tsx, which passes
  simulacra draft HiveBoard --states          write src/HiveBoard.states.tsx
  simulacra draft src/cards.tsx#HiveCard      one of several components of a file
  simulacra draft HiveBoard --print           print it, and write nothing
  simulacra draft --all src                   all components of a folder that have no test
`;

export function addDraft(
  program: Command,
  output: Output,
  from: string,
  untilStopped: () => AbortSignal,
  done: (code: number) => void,
): void {
  program
    .command('draft')
    .description('write a test of a component that passes at once: run, mend what is missing, run again')
    .argument('<what>', 'a file, file#Component, or the name of a component; with --all, a folder')
    .option('--states', 'declare its states in place of tests')
    .option('--print', 'print it, and write nothing')
    .option('--force', 'write over a file that no draft has written')
    .option('--all', 'draft all components of a folder that have no test yet')
    .option('--keep', 'write a draft that does not pass as well')
    .option('--within <seconds>', 'how long one run of a draft may take (default: 30)')
    .option('--memory <MB>', 'how much memory the process that runs it may take (default: 1024)')
    .option('--processes <number>', 'how many are drafted at once, with --all')
    .addHelpText('after', examples)
    .action(async (what: string, given: Given) => {
      // What is found by the survey is drafted here.
      const complain = (text: string) =>
        output.complain(text.replace(/simulacra(\s+)survey/g, 'simulacra$1draft'));
      done(await codeOf({ ...output, complain }, () => runDraft(output, what, from, given, untilStopped())));
    });
}

/** What a call says, by the names that a configuration has for it. */
function readCall({ states, within, memory, processes }: Given): DraftSettings {
  const number = (text: string | undefined) => (text === undefined ? undefined : Number(text));
  for (const [option, text] of Object.entries({ within, memory, processes }))
    if (text !== undefined && !(Number(text) > 0))
      refuse('SIM-DRAFT-OPTION', { option: `--${option}`, given: text, wanted: 'a number above 0' });
  const said = { states, within: number(within), memory: number(memory), processes: number(processes) };
  return Object.fromEntries(Object.entries(said).filter(([, value]) => value !== undefined));
}

async function runDraft(
  output: Output,
  what: string,
  from: string,
  given: Given,
  stopped: AbortSignal,
): Promise<number> {
  const settings = readSettings((await loadConfiguration(findRoot(from)))?.draft, readCall(given));
  const { states = false, within = 30, memory = 1024 } = settings;
  const options: DraftOptions = {
    ...{ isStates: states, isForced: given.force === true, isPrinted: given.print === true },
    limits: { patience: within * 1000, memory },
    own: import.meta.dirname,
    progress: (said) => output.progress?.(`${what}: ${said}`),
    stopped,
  };
  const drafting = new Drafting(from, options);
  // What is tried ends with its process, and the file of it goes.
  stopped.addEventListener('abort', () => drafting.close());
  try {
    return await draftAsked(output, drafting, what, settings.processes, given);
  } catch (failure) {
    if (!stopped.aborted) throw failure;
    output.complain('Stopped. What was being tried is not written.\n');
    return codeOfStopped;
  } finally {
    drafting.close();
  }
}

/** What a shell gives a command that Ctrl+C has ended. */
const codeOfStopped = 130;

async function draftAsked(
  output: Output,
  drafting: Drafting,
  what: string,
  processes: number | undefined,
  given: Given,
): Promise<number> {
  if (given.all === true) {
    const lanes = processes ?? Math.max(1, availableParallelism() - 1);
    return draftFolder(output, drafting, what, Math.floor(lanes) || 1, given);
  }
  const outcome = await drafting.draft(what);
  return finish(output, outcome, given);
}

async function draftFolder(
  output: Output,
  drafting: Drafting,
  folder: string,
  lanes: number,
  given: Given,
): Promise<number> {
  const { print, keep } = given;
  const rows = await draftAll(drafting, folder, lanes, (row, at, of) => {
    output.progress?.(`${at} of ${of}`);
    if (row.kind !== 'drafted') return;
    const { hasPassed } = row.outcome;
    if (print !== true && (hasPassed || keep === true)) write(output, row.outcome);
  });
  output.write(printRows(rows, coloursOf(output)));
  return rows.some((row) => row.kind === 'broken' || (row.kind === 'drafted' && !row.outcome.hasPassed))
    ? 1
    : 0;
}

function finish(output: Output, outcome: Outcome, { print, keep }: Given): number {
  const { hasPassed, text } = outcome;
  const isWritten = print !== true && (hasPassed || keep === true);
  if (!isWritten) output.write(text);
  output.complain(describe(outcome, output));
  if (isWritten) write(output, outcome);
  return hasPassed ? 0 : 1;
}

/** Writes a draft, and the configuration that it runs with where the project has none. */
function write(output: Output, { target, text, config }: Outcome): void {
  try {
    writeFileSync(target, text);
    if (!config || existsSync(config.file)) return;
    writeFileSync(config.file, config.text);
    output.complain(
      `wrote ${relative(process.cwd(), config.file)}, as this project has no configuration of Jest\n`,
    );
  } catch (failure) {
    refuse('SIM-DRAFT-WRITE', { file: target, why: (failure as Error).message });
  }
}

function describe(
  { hasPassed, component, target, tests, done, left, rounds, milliseconds }: Outcome,
  output: Output,
): string {
  const colours = coloursOf(output);
  const head = hasPassed
    ? `${colours.green('passes')}  ${relative(process.cwd(), target)}   ${count(tests.length, 'test')}, ${count(rounds, 'run')}, ${(milliseconds / 1000).toFixed(1)} s`
    : `${colours.red('does not pass')}  ${component}, after ${count(rounds, 'run')}, ${(milliseconds / 1000).toFixed(1)} s`;
  const lines = [
    head,
    ...tests.map((title) => `  ${title}`),
    ...(done.length > 0 ? [`  added on the way: ${[...new Set(done)].join('; ')}`] : []),
    ...left.map((one) => one.replace(/^/gm, '  ')),
  ];
  return `${lines.join('\n')}\n`;
}
