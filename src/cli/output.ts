import pc from 'picocolors';

/** Where a command writes; injected, so that a test can read it. */
export interface Output {
  write(text: string): void;
  /** For what went wrong. */
  complain(text: string): void;
  /** True on a terminal that did not ask for none. @see https://no-color.org */
  readonly colour: boolean;
}

export type Colours = ReturnType<typeof pc.createColors>;
export const coloursOf = ({ colour }: Output): Colours => pc.createColors(colour);
