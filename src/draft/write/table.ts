import type { createColors } from 'picocolors';
import { count } from '../../core/print';
import type { Row } from '../all';

/** What became of the components of a folder, in a table of 100 columns. */
export function printRows(rows: readonly Row[], colours: ReturnType<typeof createColors>): string {
  const drafted = rows.flatMap((row) => (row.kind === 'drafted' ? [row.outcome] : []));
  const passed = drafted.filter(({ hasPassed }) => hasPassed);
  const lines = [...rows]
    .sort((a, b) => order(a) - order(b) || (sourceOf(a) < sourceOf(b) ? -1 : 1))
    .flatMap((row) => printRow(row, colours));
  const skipped = rows.filter(({ kind }) => kind === 'skipped').length;
  const failed = rows.length - passed.length - skipped;
  const sums = [
    `${passed.length} of ${count(rows.length - skipped, 'component')} drafted with a test that passes`,
    ...(failed > 0 ? [`${failed} without`] : []),
    ...(skipped > 0 ? [`${skipped} left as they are`] : []),
  ];
  return `${[...lines, '', sums.join('; ')].join('\n')}\n`;
}

const order = (row: Row): number =>
  row.kind === 'skipped' ? 0 : row.kind === 'drafted' && row.outcome.hasPassed ? 1 : 2;
const sourceOf = (row: Row): string => (row.kind === 'drafted' ? row.outcome.source : row.source);

const width = 100;

function printRow(row: Row, colours: ReturnType<typeof createColors>): readonly string[] {
  if (row.kind !== 'drafted') {
    const { kind, component, source, why } = row;
    const word = kind === 'skipped' ? colours.dim('left as is') : colours.red('broken    ');
    return [
      `${word}  ${fit(component, 24)}  ${fit(why.split('\n')[0]!, 60)}`,
      ...(kind === 'broken' ? [`            ${source}`] : []),
    ];
  }
  const { hasPassed, component, source, tests, left, milliseconds } = row.outcome;
  const word = hasPassed ? colours.green('passes    ') : colours.red('fails     ');
  const seconds = `${(milliseconds / 1000).toFixed(1)} s`.padStart(7);
  const head = `${word}  ${fit(component, 24)}  ${fit(source, 38)}  ${count(tests.length, 'test').padStart(8)}  ${seconds}`;
  return [head, ...(hasPassed ? [] : left.slice(0, 1).flatMap((why) => whyLines(why)))];
}

/** Why it does not pass: its first sentences, on lines of their own. */
function whyLines(why: string): readonly string[] {
  const words = why.split('\n\n')[0]!.split(/\s+/);
  const lines = [''];
  for (const word of words) {
    const last = lines.at(-1)!;
    if (last !== '' && last.length + word.length + 1 > width - margin.length) lines.push(word);
    else lines[lines.length - 1] = last === '' ? word : `${last} ${word}`;
  }
  return lines.slice(0, 3).map((line) => margin + line);
}

const margin = ' '.repeat(12);

const fit = (text: string, room: number): string =>
  text.length > room ? `${text.slice(0, room - 1)}…` : text.padEnd(room);
