import { count } from '../core/print';
import { compareWith } from '../har/compare';
import { refuse } from '../serve/errors';
import { loadAnswers, loadRecordings } from '../serve/load';
import { coloursOf, type Output } from './output';

/** Compares answers with recorded sessions, and lists where they differ. @returns 1 where they do */
export async function listDrift(output: Output, files: readonly string[]): Promise<number> {
  const recordings = files.filter((file) => /\.har$/i.test(file));
  const answers = files.filter((file) => !/\.har$/i.test(file));
  const [missing] = [
    answers.length === 0 && 'routes',
    recordings.length === 0 && 'a recording (.har)',
  ].filter(Boolean);
  if (missing)
    refuse('SIM-SERVE-FILE', {
      file: 'Nothing',
      why: `the call names no file with ${missing}`,
      nearest: 'simulacra drift routes.ts session.har',
    });
  const root = process.cwd();
  const { routes } = await loadAnswers(answers, root);
  const entries = await loadRecordings(recordings, root);
  const { compared, unasked } = await compareWith(routes, entries);
  const { bold, dim, red, green, yellow } = coloursOf(output);
  for (const { route, asked, drifts } of compared) {
    if (route === undefined) {
      output.write(`${yellow('no route')}  ${asked.join(', ')}\n`);
      continue;
    }
    output.write(
      `${drifts.length === 0 ? green('as recorded') : red('drifted')}  ${bold(route)}  ${dim(`${count(asked.length, 'request')} recorded`)}\n`,
    );
    for (const { path, why, nearest } of drifts.slice(0, 20))
      output.write(`    ${path}: ${why}${nearest ? ` (did you mean ${nearest}?)` : ''}\n`);
    if (drifts.length > 20) output.write(dim(`    … ${drifts.length - 20} more\n`));
  }
  for (const route of unasked) output.write(`${dim('not recorded')}  ${route}\n`);
  const drifted = compared.filter(({ drifts }) => drifts.length > 0).length;
  const known = compared.filter(({ route }) => route !== undefined).length;
  output.write(
    `\n${drifted === 0 ? `No drift in ${count(known, 'route')}` : `${drifted} of ${count(known, 'route')} drifted`}\n`,
  );
  return drifted === 0 ? 0 : 1;
}
