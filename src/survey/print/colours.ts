type Paint = (text: string) => string;

/** How words are painted; the command line decides whether they are. */
export type Colours = Readonly<Record<'bold' | 'dim' | 'red' | 'yellow' | 'green', Paint>>;
