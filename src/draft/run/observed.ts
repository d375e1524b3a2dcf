/* What a run of a draft reports: written by the page it runs on, read by the command. */

/** Something a person can perceive. */
export interface Sign {
  /** The code that finds it: `role('heading', 'Anemone')`. */
  readonly code: string;
  readonly role: string | undefined;
  /** Its name or its text. */
  readonly words: string;
  readonly count: number;
  /** States of it that a locator can ask for: `{ disabled: true }`. */
  readonly state: Readonly<Record<string, unknown>>;
  /** Where its words are what a field holds, `value`, or what a child was given. */
  readonly property?: string;
  /** The child that was given its words, and whether they are a number. */
  readonly part?: { readonly name: string; readonly isNumber: boolean };
  /** True where its property is an attribute of an element that says nothing to a person. */
  readonly isMarkup?: true;
  /** True for what stands for a child, or inside of one. */
  readonly isStub?: true;
}

export interface FailureSeen {
  readonly code: string;
  readonly message: string;
  // The fields of each code are its own.
  readonly fields: Readonly<Record<string, unknown>>;
  readonly thrown?: {
    readonly name: string;
    readonly message: string;
    readonly property?: string;
    readonly at?: PlaceSeen;
  };
  readonly stack?: string;
}

export interface PlaceSeen {
  readonly file: string;
  readonly line: number;
  readonly column: number;
}

export interface LogSeen {
  readonly level: string;
  readonly text: string;
  readonly from?: string;
}

/** A prop as the component itself declares it when it runs, with those that it inherits. */
export interface DeclaredSeen {
  readonly name: string;
  /** The constructors that a value may be of: `String`. */
  readonly kinds: readonly string[];
  readonly isRequired: boolean;
}

/** What was seen in one test. */
export interface Observation {
  readonly test: string;
  readonly signs: readonly Sign[];
  readonly outline: string;
  readonly stubs: Readonly<Record<string, number>>;
  /** Routes that were asked for. */
  readonly routes: readonly string[];
  readonly requests: readonly string[];
  readonly logs: readonly LogSeen[];
  /** True where there is nothing to perceive of it. */
  readonly isEmpty: boolean;
  /** True where zone.js is loaded. */
  readonly hasZone?: boolean;
  /** Where they are more than the source shows. */
  readonly declared?: readonly DeclaredSeen[];
  /** All that was worded on the way, the first to last. */
  readonly failures: readonly FailureSeen[];
  /** What the test ended with; undefined for one that passed. */
  readonly threw?: FailureSeen;
  readonly isOver: boolean;
}

/** Names of the environment of the process that a run reads. */
export const reportTo = 'SIMULACRA_DRAFT_REPORT';
