import { refuse } from '../stage/errors';
import { nearest } from '../core/near';
import { count } from '../core/print';
import type { Chronicle } from '../core/chronicle';
import { openPage } from './page';
import { coloursOf, type Output } from './output';

/** One state of the demo, played. */
export interface DemoState {
  readonly name: string;
  /** The lines of a test that set the scene. */
  readonly code: string;
  /** What must be on the page, in words. */
  readonly expected: string;
  play(): Promise<{
    readonly outline: string;
    readonly chronicle: Chronicle;
    readonly shown: boolean;
    readonly milliseconds: number;
  }>;
}

const rule = (title: string) => `── ${title} ${'─'.repeat(Math.max(0, 94 - title.length))}`;

/** Plays the states and prints each. @returns 0 when every state showed what it must */
export async function playDemo(output: Output, only?: string): Promise<number> {
  const close = await openPage();
  try {
    const { states } = (await import(new URL('./demo.js', import.meta.url).href)) as {
      states: readonly DemoState[];
    };
    const names = states.map(({ name }) => name);
    if (only !== undefined && !names.includes(only)) {
      refuse('SIM-OPTION-VALUE', {
        option: '--state',
        value: only,
        wanted: `one of ${names.join(', ')}${nearest(only, names) ? ` (did you mean ${nearest(only, names)}?)` : ''}`,
      });
    }
    return await print(
      states.filter(({ name }) => only === undefined || name === only),
      output,
    );
  } finally {
    await close();
  }
}

async function print(states: readonly DemoState[], output: Output): Promise<number> {
  const { bold, dim, green, red, cyan } = coloursOf(output);
  const block = (title: string, text: string) => `  ${dim(title)}\n${text.replace(/^/gm, '    ')}\n\n`;
  const summary: string[] = [];
  let failed = 0;
  output.write(`${bold('HiveBoard')}, alone on its stage, in ${count(states.length, 'state')}\n\n`);
  for (const state of states) {
    const played = await state.play();
    output.write(`${cyan(rule(state.name))}\n\n`);
    output.write(
      block('test', state.code) +
        block('outline', played.outline) +
        block('chronicle', played.chronicle.toString(94)),
    );
    if (!played.shown) failed++;
    summary.push(
      `  ${played.shown ? green('shown') : red('missing')}  ${state.name.padEnd(9)}${state.expected.padEnd(52)}${String(Math.round(played.milliseconds)).padStart(4)} ms\n`,
    );
  }
  output.write(`${cyan(rule('summary'))}\n\n${summary.join('')}\n`);
  output.write(
    failed === 0
      ? `${count(states.length, 'state')} verified, no request left this machine\n`
      : `${failed} of ${count(states.length, 'state')} not as expected\n`,
  );
  return failed === 0 ? 0 : 1;
}
