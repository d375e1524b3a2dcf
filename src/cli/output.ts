import pc from 'picocolors';
import { SimulacraError } from '../core/errors/error';

/** Where a command writes; injected, so that a test can read it. */
export interface Output {
  write(text: string): void;
  /** For what went wrong. */
  complain(text: string): void;
  /** Replaces the progress line; there only on a terminal. */
  readonly progress?: (line: string) => void;
  /** True on a terminal that did not ask for none. @see https://no-color.org */
  readonly colour: boolean;
}

/** Does what a command is for. @returns its exit code; 2, with the message, where nothing could be done */
export async function codeOf(output: Output, work: () => Promise<number>): Promise<number> {
  try {
    return await work();
  } catch (failure) {
    if (!(failure instanceof SimulacraError)) throw failure;
    output.complain(`${failure.message}\n`);
    return 2;
  }
}

export type Colours = ReturnType<typeof pc.createColors>;
export const coloursOf = ({ colour }: Output): Colours => pc.createColors(colour);
