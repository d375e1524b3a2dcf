import type { ChronicleLog } from '../core/chronicle';
import type { StubSet } from './stubs';

/** What the stage needs of a framework. One implementation each, as thin as it can be. */
export interface Adapter {
  /** As a message calls it: "React". */
  readonly framework: string;
  /** How a component is called; undefined for what is no component of this framework. */
  nameOf(component: unknown): string | undefined;
  /** Loads what is needed. @throws where the framework cannot be used as it is loaded */
  prepare(): Promise<void>;
  /** Runs work, which may take its time, and has the framework render all it caused. */
  settle(work: () => unknown): Promise<void>;
  /** The same for work that is done at once. */
  settleNow(work: () => void): void;
  /** Puts the subject up; it is rendered when it is started. */
  mount(plan: Plan): Mounted;
  /** The component in a container whose code runs now; undefined for none, or where that is not known. */
  running(container: Element): string | undefined;
  /** True while an error that reaches the window will also come by the framework's own way. */
  willReport?(container: Element): boolean;
}

/** What is to be put on the stage. */
export interface Plan {
  readonly component: unknown;
  readonly name: string;
  readonly props: object;
  readonly stubs: StubSet;
  readonly provide: readonly (readonly [token: unknown, value: unknown])[];
  readonly wrap: readonly unknown[];
  readonly container: HTMLElement;
  readonly chronicle: ChronicleLog;
  /** To be called after each rendering that reached the page. */
  onRendered(): void;
  /** To be called with what was thrown out of the subject, already worded. */
  onThrown(error: Error): void;
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
  readonly element: Element | undefined;
}

/** A subject that is rendered. */
export interface Mounted {
  /** Renders the subject for the first time. */
  start(): Promise<void>;
  /** Gives the subject other props; what is not named stays. */
  update(props: object): void;
  unmount(): Promise<void>;
  /** The subject and what is below it. */
  tree(): TreeNode;
  /** Each instance of a component that is not stubbed, with its outermost element where it has one. */
  instancesOf(component: unknown): Instance[];
}
