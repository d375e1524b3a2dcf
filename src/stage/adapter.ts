import type { ChronicleLog } from '../core/chronicle';
import type { Environment } from '../core/environment';
import type { AnyFunction } from '../core/spy';
import type { Declared } from './declared';
import type { ReadOptions } from './plan';

/** What the stage needs of a framework. One implementation each, as thin as it can be. */
export interface Adapter {
  /** As a message calls it: "React". */
  readonly framework: string;
  /** Whether this can be put on the stage, where not all that has a name can. */
  isSubject?(component: unknown): boolean;
  /** How a component is called; undefined for what is none of this framework, and nothing else it could stub. */
  nameOf(component: unknown): string | undefined;
  /** What is inside a wrapping of the framework's own, and counts as the same component. */
  unwrap(component: unknown): unknown;
  /** The component that an element or an instance is made of; undefined for anything else. */
  madeOf(value: unknown): string | undefined;
  /** Why a value that looks like a component is none. */
  whyNone?(value: unknown): string | undefined;
  /** The name of a component as a test may write it in a list: `hive-card` for HiveCard. */
  nameAs?(written: string): string;
  /** How what a value is provided for is called. */
  nameOfToken(token: unknown): string;
  /** The options this framework has beside those that all have. */
  readonly options: readonly string[];
  /** What to do for an output to be there, as code. */
  readonly outputHint: string;
  /** Loads what is needed; returns nothing where all is there. @throws where the framework cannot be used as it is loaded */
  prepare(): Promise<void> | void;
  /** Runs work, which may take its time, and has the framework render all it caused. */
  settle(work: () => unknown): Promise<void>;
  /** The same for one event of a gesture: what it caused is rendered before the next one is sent. */
  settleNow(work: () => void): void | Promise<void>;
  /** Lets time pass, where the framework would take any work as a reason to render. */
  pass?(turn: () => unknown): Promise<void>;
  /** What the framework calls a value that is given to a component. */
  readonly propWord: 'prop' | 'input';
  /** What a component can be given; undefined where that is unknown. */
  propsOf?(component: unknown): Declared;
  /** What can be put into a component. */
  slotsOf?(component: unknown): Declared;
  /** What explains that an answer was followed by no rendering; nothing where nothing does. */
  stillHint?(): readonly string[];
  /** Values of this framework's own options that it cannot take. @throws SIM-OPTION-VALUE */
  refuseOptions?(options: object, calledAt: Error): void;
  /** An element to render into that was used before and is as good as new; undefined for a new one. */
  takeContainer?(): HTMLElement | undefined;
  /** Puts the subject up; it is rendered when it is started. */
  mount(plan: Plan): Mounted;
  /** The component in a container whose code runs now; undefined for none, or where that is not known. */
  running(container: Element): string | undefined;
  /** True while the framework has work scheduled for what is rendered in a container. */
  isPending?(container: Element): boolean;
  /** True where what is rendered in a container has put an element elsewhere on the page; undefined where that is not known. */
  owns?(container: Element, element: Element): boolean | undefined;
  /** True while an error that reaches the window will also come by the framework's own way. */
  willReport?(container: Element): boolean;
}

/** What is to be put on the stage. */
export interface Plan extends ReadOptions {
  readonly component: unknown;
  readonly name: string;
  readonly container: HTMLElement;
  readonly environment: Environment;
  readonly chronicle: ChronicleLog;
  /** To be called after each rendering that reached the page; one that is not sure counts if the page has changed. */
  onRendered(sure?: boolean): void;
  /** To be called with what was thrown out of the subject, already worded. */
  onThrown(error: Error): void;
  /** To be called with what a listener of the subject threw, as it is. */
  onListenerThrew(error: unknown): void;
  /** To be called with what the subject told its parent. */
  onTold(name: string, args: readonly unknown[]): void;
}

/** A component or element as the outline shows it. */
export type TreeNode =
  | {
      readonly kind: 'component';
      readonly name: string;
      readonly stub: boolean;
      readonly props: Readonly<Record<string, unknown>>;
      readonly children: readonly TreeNode[];
    }
  | { readonly kind: 'element'; readonly element: Element; readonly children: readonly TreeNode[] }
  | { readonly kind: 'text'; readonly text: string };

/** One instance of a real component. */
export interface Instance {
  readonly props: Record<string, unknown>;
  /** What its parent listens to, by name; functions among the props count without it. */
  readonly heard?: Record<string, AnyFunction>;
  readonly element: Element | undefined;
}

/** The arguments of each time something was told, by name. */
export type Told = Readonly<Record<string, readonly (readonly unknown[])[]>>;

/** A subject that is rendered. */
export interface Mounted {
  /** Renders the subject for the first time. */
  start(): Promise<void>;
  /** What the subject has told its parent, for each name it can tell: the arguments of each time. */
  outputs(): Told;
  /** Gives the subject other props; what is not named stays. */
  update(props: object): void;
  unmount(): Promise<void>;
  /** Takes away what renders again and again without ever leaving the step that it is in. */
  giveUp?(): void;
  /** The subject and what is below it. */
  tree(): TreeNode;
  /** Each instance of a component that fits and is not stubbed, with its outermost element where it has one. */
  instancesOf(fits: (component: unknown) => boolean): Instance[];
}
