import { refuse } from '../stage/errors';
import { withoutHistory } from '../core/errors';
import { nearest } from '../core/near';
import { count } from '../core/print';
import type { Arrivals } from '../arrivals/every-arrival';
import type { StateReport, StatesReport } from '../states/verification';
import { openPage } from './page';
import { coloursOf, type Output } from './output';

/** What the demo is played from: the React example. */
export interface Demo {
  /** The names of the declared states of a board of hives. */
  readonly names: readonly string[];
  verify(only: readonly string[]): Promise<StatesReport>;
  /** A component with a race in it, and its mended twin. */
  race(): Promise<{ readonly failure: Error | undefined; readonly mended: Arrivals }>;
}

const rule = (title: string) => `── ${title} ${'─'.repeat(Math.max(0, 94 - title.length))}`;

/** Plays the declared states and a race, and prints what came of each. @returns 0 where all is as it must be */
export async function playDemo(output: Output, only?: string): Promise<number> {
  const close = await openPage();
  try {
    const demo = (await import(new URL('./demo.js', import.meta.url).href)) as Demo;
    const { names } = demo;
    if (only !== undefined && !names.includes(only)) {
      const near = nearest(only, names);
      refuse('SIM-OPTION-VALUE', {
        option: '--state',
        value: only,
        wanted: `one of ${names.join(', ')}${near ? ` (did you mean ${near}?)` : ''}`,
      });
    }
    const holds = printStates(await demo.verify(only === undefined ? names : [only]), output);
    if (only !== undefined) return holds ? 0 : 1;
    return printRace(await demo.race(), output) && holds ? 0 : 1;
  } finally {
    await close();
  }
}

function printStates({ component, states, pairs, failures }: StatesReport, output: Output): boolean {
  const { bold, dim, green, red, cyan } = coloursOf(output);
  output.write(`${bold(component)}, alone on its stage, in ${count(states.length, 'state')}\n\n`);
  for (const state of states) output.write(`${cyan(rule(state.name))}\n\n${printState(state, dim)}`);
  output.write(`${cyan(rule('summary'))}\n\n`);
  for (const { name, holds, declares, milliseconds } of states) {
    const mark = holds ? green('shown') : red('wrong');
    const time = `${Math.round(milliseconds)} ms`.padStart(7);
    output.write(`  ${mark}  ${name.padEnd(17)}${declares.join(', ').padEnd(54)}${time}\n`);
  }
  for (const failure of failures) output.write(`\n${red(withoutHistory(failure.message))}\n`);
  const wrong = states.filter(({ holds }) => !holds).length;
  const verified =
    wrong === 0
      ? `${count(states.length, 'state')} verified, no request left this machine`
      : `${wrong} of ${count(states.length, 'state')} not as declared`;
  const meant = pairs.compared - pairs.apart;
  const apart = `${pairs.apart} of ${count(pairs.compared, 'pair')} told apart${meant > 0 ? `, ${meant} meant to look alike` : ''}`;
  output.write(`\n${verified}${pairs.compared > 0 ? `\n${apart}` : ''}\n`);
  return wrong === 0 && failures.length === 0;
}

function printState(
  { declares, outline, chronicle, failure }: StateReport,
  dim: (text: string) => string,
): string {
  const block = (title: string, text: string) => `  ${dim(title)}\n${text.replace(/^/gm, '    ')}\n\n`;
  if (failure) return block('failed', failure.message);
  return (
    block('declared', declares.join('\n')) +
    block('outline', outline) +
    block('chronicle', chronicle!.toString(94))
  );
}

function printRace({ failure, mended }: Awaited<ReturnType<Demo['race']>>, output: Output): boolean {
  const { dim, green, red, cyan } = coloursOf(output);
  output.write(`\n${cyan(rule('every order of arrival'))}\n\n`);
  output.write(`  ${dim('HiveFinder asks at each letter, and shows whichever answer comes last')}\n`);
  const found = failure ? withoutHistory(failure.message).replace(/^/gm, '    ') : '    nothing was found';
  output.write(`${found}\n\n`);
  output.write(`  ${dim('The same, and it shows the answer to what was asked last')}\n`);
  const all = `${mended.tried} of ${count(mended.of, 'order')}`;
  output.write(`    ${mended.complete ? green('held') : red('held')} in ${all}\n\n`);
  output.write(`${failure ? 'One race found' : 'No race found'}, no false alarm\n`);
  return failure !== undefined && mended.complete;
}
