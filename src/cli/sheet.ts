import { relative, resolve } from 'node:path';
import { count } from '../core/print';
import { drawSheet } from '../sheet/draw';
import { filesOfShard, findStatesFiles } from '../sheet/files';
import { SheetFolder } from '../sheet/keep';
import { countSheet, isGood, type Scheme, type Sheet } from '../sheet/model';
import { coloursOf, type Output } from './output';

/** What the call says. */
export interface SheetCall {
  readonly files: readonly string[];
  readonly out: string;
  readonly widths: readonly number[];
  readonly schemes: readonly Scheme[];
  readonly load: readonly string[];
  readonly pages: number | undefined;
  readonly shard: string | undefined;
  readonly isAudited: boolean;
}

/** Draws a sheet of states. @returns the exit code */
export async function makeSheet(output: Output, call: SheetCall, stop: AbortSignal): Promise<number> {
  const root = process.cwd();
  const files = filesOfShard(findStatesFiles(call.files, root), call.shard);
  const folder = await SheetFolder.begin(resolve(root, call.out));
  try {
    const sheet = await drawSheet({
      ...{ root, files, widths: call.widths, schemes: call.schemes, pages: call.pages, stop },
      ...{ shard: call.shard, isAudited: call.isAudited },
      load: call.load.map((file) => resolve(root, file)),
      keep: ({ component, state, width, scheme, data }) =>
        folder.keep([component, state, String(width), scheme], Buffer.from(data, 'base64')),
    });
    await folder.finish(sheet);
    printSummary(sheet, output, relative(root, folder.target));
    return isGood(countSheet(sheet)) ? 0 : 1;
  } finally {
    await folder.drop();
  }
}

function printSummary(sheet: Sheet, output: Output, folder: string): void {
  const { bold, red } = coloursOf(output);
  for (const { component, states, failures } of sheet.components) {
    for (const { name, views } of states)
      for (const { failure } of views)
        if (failure) output.write(`${red('wrong')} ${component} ${name}\n${failure.message}\n`);
    for (const { message } of failures) output.write(`${red('wrong')} ${component}\n${message}\n`);
  }
  const counted = countSheet(sheet);
  output.write(
    `${count(counted.states, 'state')} of ${count(counted.components, 'component')} in ${sheet.milliseconds} ms\n`,
  );
  output.write(`${bold(`${folder}/index.html`)}\n`);
}
