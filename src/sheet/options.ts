import type { Scheme, SheetComponent } from './model';

/** What is drawn, and how. */
export interface DrawOptions {
  /** The folder that file names are relative to. */
  readonly root: string;
  readonly files: readonly string[];
  /** In CSS pixels. */
  readonly widths: readonly number[];
  readonly schemes: readonly Scheme[];
  /** Modules and styles that every page loads first. */
  readonly load: readonly string[];
  /** How many pages are drawn at once. */
  readonly pages?: number | undefined;
  /** How many milliseconds a state may take. */
  readonly within?: number | undefined;
  /** Whether problems of accessibility are looked for, where axe-core is installed. */
  readonly isAudited?: boolean;
  readonly isShown?: boolean;
  readonly shard?: string | undefined;
  /** Keeps the bytes of a picture, which are in base64. @returns the name of its file */
  keep(picture: Picture): Promise<string>;
  /** Told after each state, with all that is known of its component so far. */
  readonly onDrawn?: ((component: SheetComponent, state: string) => void) | undefined;
  /** The state and the screen that somebody looks at: they are drawn first. */
  readonly lookedAt?: (() => LookedAt | undefined) | undefined;
  /** Ends the drawing. */
  readonly stop?: AbortSignal | undefined;
}

/** A picture that was taken. */
export interface Picture {
  /** Of the component, from the folder the sheet is made in. */
  readonly file: string;
  readonly component: string;
  readonly state: string;
  readonly width: number;
  readonly scheme: Scheme;
  readonly data: string;
}

/** A state that somebody looks at. */
export interface LookedAt {
  /** From the folder the sheet is made in. */
  readonly file: string;
  readonly state: string;
  readonly width: number;
  readonly scheme: Scheme;
}
