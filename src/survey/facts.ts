/** What one file says, without a look at any other: plain data, so that it can be kept between runs. */
export interface FileFacts {
  readonly imports: readonly Import[];
  readonly exports: readonly Export[];
  /** What is declared at the top of the file, and what the file does when it is loaded. */
  readonly units: readonly Unit[];
  /** Why the file could not be read; its other facts are empty then. */
  readonly unread?: { readonly why: string; readonly line: number };
}

export interface Import {
  readonly specifier: string;
  readonly line: number;
  /** Local names by what they stand for; `*` is the whole module. Without types. */
  readonly names: readonly { readonly local: string; readonly name: string }[];
  /** `import('…')`: loaded when it is reached. */
  readonly isLazy?: true;
}

/** `local` is a name of this file; `specifier` hands on what another one exports. */
export interface Export {
  readonly name: string;
  readonly local?: string;
  readonly specifier?: string;
}

export type Framework = 'react' | 'vue' | 'angular';

export type UnitKind =
  | 'component'
  | 'hook'
  | 'composable'
  | 'service'
  | 'directive'
  | 'pipe'
  | 'module' // of Angular
  | 'context'
  | 'token'
  | 'store'
  | 'function'
  | 'class'
  | 'value'
  | 'load'; // what the file does when it is loaded

/** One thing that a file declares. */
export interface Unit {
  readonly isExported?: true;
  readonly name: string;
  readonly kind: UnitKind;
  readonly framework?: Framework;
  readonly line: number;
  readonly uses: readonly Use[];
  readonly leaves: readonly Leaf[];
  /** For Angular: how templates name it, and for a module what it lends to templates. */
  readonly selectors?: readonly string[];
  readonly lends?: readonly string[];
  readonly declares?: readonly string[];
  readonly imports?: readonly string[];
  readonly inputs?: readonly string[];
  readonly outputs?: readonly string[];
  readonly slots?: readonly string[];
  /** Props that are called to render something. */
  readonly renders?: readonly string[];
  /** The text of a constant, for addresses that are made of it. */
  readonly text?: Parts;
  /** Of an object that is written out: the addresses in it, by name. */
  readonly texts?: Readonly<Record<string, Parts>>;
  /** Elements, attributes and pipes of an Angular template: whatever matches is used. */
  readonly template?: Template;
}

export interface Template {
  readonly tags: readonly {
    readonly name: string;
    readonly attributes: readonly string[];
    readonly line: number;
  }[];
  readonly pipes: readonly string[];
  /** Names of elements that come about later: `@defer`. */
  readonly deferred: readonly string[];
  /** What is rendered of what is given: `<ng-content>`. */
  readonly slots: readonly string[];
  /** Where the template is, as the component names it. */
  readonly url?: string;
}

export type How =
  | 'rendered'
  | 'called'
  | 'made' // by `new`
  | 'injected' // inject(X), useContext(X), a constructor's parameter
  | 'provided'
  | 'read';

/** One use of something that the file imports or declares at its top. */
export interface Use {
  readonly name: string;
  /** Of a whole module or an object: which part. */
  readonly member?: string;
  readonly how: How;
  readonly line: number;
  /** Used while the file is loaded, not when the unit runs. */
  readonly atLoad?: true;
  /** A component of its own part of the bundle: `lazy(() => import('…'))`. */
  readonly isLazy?: true;
  /** The parent keeps a reference to it. */
  readonly hasRef?: true;
  /** Addresses among the arguments, by place. */
  readonly addresses?: readonly (Parts | null)[];
  /** The method or property that it is used in. */
  readonly within?: string;
}

export type LeafKind =
  | 'request'
  | 'socket'
  | 'event stream'
  | 'storage'
  | 'timer'
  | 'clock'
  | 'chance'
  | 'global'
  | 'page feature'
  | 'navigation'
  | 'worker';

/** Where a component meets the world outside of its source. */
export interface Leaf {
  readonly kind: LeafKind;
  readonly what: string;
  readonly line: number;
  readonly atLoad?: true;
  readonly method?: string;
  readonly address?: Parts;
  /** `api` of `api.get('/hives')`: it is a request if this name stands for something that asks the network. */
  readonly client?: string;
  /** The method or property that it stands in. */
  readonly within?: string;
}

/** A text, as far as it can be read: what is known, and names for what is not. */
export type Parts = readonly Part[];
export type Part =
  | string
  /** Something known only when it runs. */
  | { readonly unknown: string }
  /** A parameter of the function around. */
  | { readonly argument: number; readonly unknown: string }
  /** A constant of this file or one that it imports. */
  | { readonly constant: string; readonly member?: string };
