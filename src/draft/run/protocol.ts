/* What the command and the process that tries drafts say to each other. */

export interface Ask {
  readonly root: string;
  readonly files: readonly string[];
  /** The configuration of Jest: a file, or JSON. */
  readonly config: string;
  /** How long one test may take. */
  readonly milliseconds: number;
}

export interface Told {
  readonly files: readonly FileTold[];
  /** Why the runner itself could not run. */
  readonly broke?: string;
}

export interface FileTold {
  readonly file: string;
  /** Why the file has run no test. */
  readonly failed?: string;
  readonly tests: readonly {
    readonly title: string;
    readonly hasPassed: boolean;
    readonly message: string;
  }[];
}
