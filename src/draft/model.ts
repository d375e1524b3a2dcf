import type { Framework } from '../survey/facts';
import type { Needed, Value } from './value';

/** The options of `isolate` that a draft may give, each by what it is called. */
export interface Given {
  readonly props: ReadonlyMap<string, Value>;
  /** Routes, by what they answer: `GET /api/hives`. */
  readonly network: ReadonlyMap<string, Value>;
  readonly slots: ReadonlyMap<string, Value>;
  readonly stub: readonly Value[];
  readonly provide: readonly (readonly [token: Value, value: Value])[];
  readonly wrap: readonly Value[];
  readonly swap: readonly Value[];
  /** What the page is given before a test begins, as statements. */
  readonly page: readonly Value[];
  /** Other options, as they are written: `time`, `logs`, `leaks`. */
  readonly more: ReadonlyMap<string, Value>;
}

export const nothingGiven: Given = {
  props: new Map(),
  network: new Map(),
  slots: new Map(),
  stub: [],
  provide: [],
  wrap: [],
  swap: [],
  page: [],
  more: new Map(),
};

/** Something that a test looks for. */
export interface Check {
  /** `role('heading', 'Anemone')`. */
  readonly code: string;
  /** What a field holds, `value` and the text; or what a child was given. */
  readonly holds?: readonly [property: string, held: string | number];
  /** True where that property is an attribute. */
  readonly isMarkup?: boolean;
  /** How often it is there, where that matters; 0 for what is not. */
  readonly times?: number;
  /** True for what was only put inside: a slot, children. */
  readonly isPutIn?: boolean;
  /** The prop that it shows: `props.name`. */
  readonly told?: string;
  /** A child that is looked for by reference. */
  readonly part?: Needed;
}

/** A state that the component can be brought into. */
export interface Case {
  /** For a states file: `loading`. */
  readonly key: string;
  /** For a test: `says that it is loading`. */
  readonly title: string;
  /** What it is given beside what all states have. */
  readonly given: Pick<Given, 'props' | 'network' | 'more'>;
  readonly checks: readonly Check[];
  /** A prop that is changed at the end, and what has to be shown then. */
  readonly follow?: Follow;
}

export interface Follow {
  readonly prop: string;
  /** All of it, changed. */
  readonly value: Value;
  /** The one field of it that is shown, where it is an object. */
  readonly field?: readonly [name: string, value: Value];
  readonly checks: readonly Check[];
}

/** What a draft says: printed as a file of tests or of states. */
export interface Draft {
  readonly component: Needed;
  readonly framework: Framework;
  /** What the draft calls what it has isolated: `board`. */
  readonly variable: string;
  readonly given: Given;
  readonly cases: readonly Case[];
  /** What was added on the way, in words. */
  readonly done: readonly string[];
  /** True where the component has to be loaded after what it imports was swapped. */
  readonly isLoadedLate: boolean;
  /** Children whose props are looked at, where nothing else is known. */
  readonly watched?: readonly Needed[];
  /** True where the attributes of its elements are looked at, because nothing else is known. */
  readonly seesMarkup?: boolean;
  /** A file that has to be loaded before it, where files import each other in a circle. */
  readonly loadedFirst?: string;
  /** True where its file exports no other component. */
  readonly isOnlyOne: boolean;
}
