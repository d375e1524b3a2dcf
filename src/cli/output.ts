import pc from 'picocolors';

/** Where a command writes; injected, so that a test can read it. */
export interface Output {
  write(text: string): void;
  /** For what went wrong. */
  complain(text: string): void;
  /** Replaces the line that tells how far something has come; there only on a terminal. */
  readonly progress?: (line: string) => void;
  /** True on a terminal that did not ask for none. @see https://no-color.org */
  readonly colour: boolean;
}

export type Colours = ReturnType<typeof pc.createColors>;
export const coloursOf = ({ colour }: Output): Colours => pc.createColors(colour);
