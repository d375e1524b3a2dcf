import { once } from 'node:events';
import { relative, resolve } from 'node:path';
import { count } from '../core/print';
import { loadConfiguration } from '../serve/load';
import { acceptSheet, compareSheet } from '../sheet/compare';
import { drawSheet } from '../sheet/draw';
import { filesOfShard, findStatesFiles } from '../sheet/files';
import { SheetFolder } from '../sheet/keep';
import { mergeSheets } from '../sheet/merge';
import { countSheet, failuresOf, isGood, type Failed, type Sheet, type SheetComponent } from '../sheet/model';
import { readSettings, type ReadSettings, type SheetSettings } from '../sheet/settings';
import { watchSheet } from '../sheet/watch';
import { coloursOf, type Output } from './output';

/** What the call says. */
export interface SheetCall {
  readonly settings: SheetSettings;
  readonly shard: string | undefined;
  readonly isComparing: boolean;
  readonly isAccepting: boolean;
  /** Folders of sheets that are parts of one. */
  readonly merge: readonly string[] | undefined;
  readonly isShown: boolean;
  /** The port to serve it on while files are being saved; undefined where nobody watches. */
  readonly watch: number | undefined;
}

/** Draws a sheet of states, or makes one of its parts. @returns 0 only where every state is as it should be */
export async function makeSheet(output: Output, call: SheetCall, stop: AbortSignal): Promise<number> {
  const root = process.cwd();
  const settings = readSettings((await loadConfiguration(root))?.sheet, call.settings);
  const folder = await SheetFolder.begin(resolve(root, settings.out));
  try {
    const drawing = { output, call, settings, folder, stop };
    if (call.watch !== undefined) return await watch(drawing, call.watch);
    const drawn = call.merge ? await mergeSheets(call.merge, root, folder) : await draw(drawing);
    if (stop.aborted) {
      output.complain('Stopped; nothing was written.\n');
      return 1;
    }
    const accepted = resolve(root, settings.accepted);
    const compared = call.isComparing
      ? await compareSheet(drawn, folder, { accepted, tolerance: settings.tolerance })
      : drawn;
    if (call.isAccepting) {
      const { taken, gone } = await acceptSheet(drawn, folder, accepted);
      const left = gone > 0 ? `, ${gone} of states that are no more taken away` : '';
      output.write(`${count(taken, 'picture')} taken as accepted${left}: ${settings.accepted}\n\n`);
    }
    await folder.finish(compared);
    printSheet(compared, output, relative(root, folder.target));
    return isGood(countSheet(compared)) ? 0 : 1;
  } finally {
    await folder.drop();
  }
}

interface Drawing {
  readonly output: Output;
  readonly call: SheetCall;
  readonly settings: ReadSettings;
  readonly folder: SheetFolder;
  readonly stop: AbortSignal;
}

function readDrawing({ call, settings, stop }: Drawing) {
  const root = process.cwd();
  const files = filesOfShard(findStatesFiles(settings.files ?? [], root), call.shard);
  const { widths, schemes, pages, within, accessibility } = settings;
  return {
    ...{ root, files, widths, schemes, pages, within, shard: call.shard },
    ...{ isAudited: accessibility, isShown: call.isShown, stop },
    load: settings.load.map((file) => resolve(root, file)),
  };
}

async function draw(drawing: Drawing): Promise<Sheet> {
  const { output, folder } = drawing;
  const read = readDrawing(drawing);
  return drawSheet({
    ...read,
    keep: (picture) => folder.keep(picture),
    onDrawn: makeProgress(output, read.files.length),
  });
}

/** Serves the sheet until it is stopped. */
async function watch(drawing: Drawing, port: number): Promise<number> {
  const { output, folder, stop } = drawing;
  const { bold, dim } = coloursOf(output);
  const read = readDrawing(drawing);
  const watched = await watchSheet({
    ...{ ...read, folder, port },
    onRedrawn: (files, milliseconds) => {
      const names = files.map((file) => relative(read.root, file)).join(', ');
      output.write(`${names} drawn again  ${dim(`${Math.round(milliseconds)} ms`)}\n`);
    },
  });
  try {
    output.write(
      `${bold(watched.url)} shows the states of ${count(read.files.length, 'file')} · Ctrl+C stops\n`,
    );
    const drawn = watched.drawn.then(({ components, milliseconds }) => {
      if (stop.aborted) return;
      const { states } = countSheet({ components });
      output.write(`${count(states, 'state')} drawn  ${dim(`${milliseconds} ms`)}\n`);
    });
    await Promise.race([drawn.then(() => new Promise(() => undefined)), stop.aborted || once(stop, 'abort')]);
  } finally {
    await watched.close();
  }
  output.write('Stopped.\n');
  return 0;
}

/** Tells on a terminal how far it has come. */
function makeProgress({ progress }: Output, files: number) {
  const begun = performance.now();
  const drawn = new Set<string>();
  const components = new Set<string>();
  progress?.(`Opening the browser for ${count(files, 'file')} …`);
  return ({ file, component }: SheetComponent, state: string): void => {
    drawn.add(`${file} ${state}`);
    components.add(file);
    const time = ((performance.now() - begun) / 1000).toFixed(0);
    progress?.(
      `${components.size} of ${count(files, 'file')}, ${count(drawn.size, 'state')}, ${time} s   ${component}: ${state}`,
    );
  };
}

function printSheet(sheet: Sheet, output: Output, folder: string): void {
  const { bold, dim, green, red } = coloursOf(output);
  const { components, milliseconds } = sheet;
  const widest = Math.max(...components.map(({ component }) => component.length), 0);
  let project: string | undefined;
  for (const component of components) {
    if (component.project !== project) output.write(`${(project = component.project) || '.'}\n`);
    const wrong = component.states.filter((state) => failuresOf(state).length > 0).length;
    const isWell = wrong + component.failures.length === 0;
    const all = count(component.states.length, 'state');
    const told = wrong > 0 ? `${wrong} of ${all}` : all;
    output.write(
      `  ${isWell ? green('shown') : red('wrong')}  ${component.component.padEnd(widest)}  ${dim(told)}\n`,
    );
  }
  output.write('\n');
  for (const { component, file, states, failures } of components) {
    for (const { name, line, views } of states)
      for (const [message, screens] of groupFailures(
        views.map((view) => [view.failure, `${view.width} ${view.scheme}`] as const),
      ))
        output.write(
          `${red(`${component} · ${name}`)}  ${dim(`${file}${line ? `:${line}` : ''}${screens.length < views.length ? ` (${screens.join(', ')})` : ''}`)}\n${indent(message)}\n\n`,
        );
    for (const { message } of failures)
      output.write(`${red(component)}  ${dim(file)}\n${indent(message)}\n\n`);
  }
  const { states, wrong, changed, isNew, problems, failures } = countSheet(sheet);
  const notes = [
    wrong - changed - isNew > 0 && `${wrong - changed - isNew} not as declared`,
    changed > 0 && `${changed} changed`,
    isNew > 0 && `${isNew} not accepted yet`,
    failures > 0 && `${count(failures, 'complaint')} about states as a whole`,
  ].filter(Boolean);
  const outcome = notes.length > 0 ? red(notes.join(', ')) : green('all verified');
  const access = problems > 0 ? `, ${problems} hard to access` : '';
  output.write(
    `${count(states, 'state')} of ${count(components.length, 'component')}: ${outcome}${access}  ${dim(`(${(milliseconds / 1000).toFixed(1)} s)`)}\n`,
  );
  output.write(`${bold(`${folder}/index.html`)}\n`);
}

const indent = (text: string) => text.replace(/^(?=.)/gm, '  ');

/** The same message of several screens is printed once. */
function groupFailures(failures: readonly (readonly [Failed | undefined, string])[]): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const [failure, screen] of failures)
    if (failure) groups.set(failure.message, [...(groups.get(failure.message) ?? []), screen]);
  return groups;
}
