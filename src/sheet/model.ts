/* What a sheet is made of: plain data, kept as `sheet.json` beside it. */

/** What went wrong, in words. */
export interface Failed {
  /** Of the catalogue: `SIM-STATE-WRONG`. */
  readonly code: string | undefined;
  readonly message: string;
}

/** A problem of accessibility, in the words of axe-core. */
export interface AccessibilityProblem {
  readonly rule: string;
  readonly impact: string;
  readonly help: string;
  /** The markup it was found in, of the first few. */
  readonly places: readonly string[];
}

/** What came of bringing one state about. */
export interface Verdict {
  readonly failure: Failed | undefined;
  /** What it declares, as code. */
  readonly declares: readonly string[];
  readonly outline: string;
  readonly chronicle: string;
  /** From the call of `isolate` to rest; undefined where it did not get there. */
  readonly milliseconds: number | undefined;
}

/** What a file declares. */
export interface DeclaredIn {
  readonly component: string;
  readonly states: readonly string[];
}

/** What was found of all states of a component. */
export interface Found {
  /** How many ordered pairs of states were compared, and told apart. */
  readonly pairs: { readonly compared: number; readonly apart: number };
  readonly failures: readonly Failed[];
}

export type Scheme = 'light' | 'dark';

/** How a picture differs from the one that was accepted. */
export interface Comparison {
  readonly outcome: 'same' | 'changed' | 'new';
  /** How much of it, from 0 to 1. */
  readonly part: number;
  /** The files, beside the sheet. */
  readonly accepted: string | undefined;
  readonly difference: string | undefined;
}

/** A state as it looks on one kind of screen. */
export interface View {
  /** In CSS pixels. */
  readonly width: number;
  readonly scheme: Scheme;
  /** The file, beside the sheet; undefined where the state did not come about. */
  readonly picture: string | undefined;
  readonly height: number | undefined;
  readonly problems: readonly AccessibilityProblem[] | undefined;
  readonly failure: Failed | undefined;
  readonly comparison: Comparison | undefined;
}

/** One declared state. */
export interface SheetState extends Omit<Verdict, 'failure'> {
  readonly name: string;
  readonly line: number | undefined;
  readonly views: readonly View[];
}

/** The states of one file. */
export interface SheetComponent extends Found {
  /** The folder of its project, below the folder the sheet was made in. */
  readonly project: string;
  readonly file: string;
  readonly component: string;
  readonly states: readonly SheetState[];
}

/** A whole sheet. */
export interface Sheet {
  readonly simulacra: 'sheet';
  readonly version: 1;
  /** In ISO 8601. */
  readonly made: string;
  readonly milliseconds: number;
  /** Which part of a whole it is: `2/5`. */
  readonly shard: string | undefined;
  readonly components: readonly SheetComponent[];
}

/** What failed of a state, on any screen. */
export const failuresOf = ({ views }: SheetState): Failed[] => views.flatMap(({ failure }) => failure ?? []);

/** How a sheet came out. */
export interface Count {
  readonly components: number;
  readonly states: number;
  readonly wrong: number;
  readonly changed: number;
  readonly isNew: number;
  readonly problems: number;
  /** What is wrong with states as a whole. */
  readonly failures: number;
}

export function countSheet({ components }: Pick<Sheet, 'components'>): Count {
  const states = components.flatMap((one) => one.states);
  const having = (test: (state: SheetState) => boolean) => states.filter(test).length;
  const compared = (outcome: Comparison['outcome']) =>
    having(({ views }) => views.some(({ comparison }) => comparison?.outcome === outcome));
  return {
    components: components.length,
    states: states.length,
    wrong: having((state) => failuresOf(state).length > 0),
    changed: compared('changed'),
    isNew: compared('new'),
    problems: having(({ views }) => views.some(({ problems = [] }) => problems.length > 0)),
    failures: components.flatMap(({ failures }) => failures).length,
  };
}

/** True where every state is as it should be. */
export const isGood = (count: Count): boolean =>
  count.wrong + count.changed + count.isNew + count.failures === 0;
