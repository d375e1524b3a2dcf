import '@angular/compiler';
import * as core from '@angular/core';
import { exportFitting, exportOf } from '../seam/exports';

/** The class of a component, directive, pipe or service. */
export type Class<T = unknown> = abstract new (...args: never[]) => T;

/**
 * What Angular keeps of a component or directive beside its class, as far as it is read or made
 * anew here: of a component that is put on the stage a copy is made, in which what it may use is
 * replaced. The class and its own definition stay as they are.
 */
export interface Definition {
  readonly type: Class;
  readonly selectors: readonly (readonly (string | number)[])[];
  /** By public name: the name of the field, flags, a transform. */
  readonly inputs: Readonly<Record<string, readonly [field: string, flags: number, transform: unknown]>>;
  /** Fields by public name. */
  readonly outputs: Readonly<Record<string, string>>;
  readonly declaredInputs: Readonly<Record<string, string>>;
  readonly inputConfig: unknown;
  readonly exportAs: readonly string[] | null;
  readonly standalone: boolean;
  readonly onPush?: boolean;
  readonly template?: unknown;
  readonly dependencies?: Listed<unknown> | null;
  readonly ngContentSelectors?: readonly string[];
  readonly hostDirectives?: readonly (HostDirective | (() => readonly HostDirective[]))[] | null;
  tView?: null;
  factory: ((type?: unknown) => unknown) | null;
  directiveDefs?: Listed<Definition> | null;
  pipeDefs?: Listed<PipeDefinition> | null;
  providersResolver?: Resolver | null;
  viewProvidersResolver?: Resolver | null;
  getStandaloneInjector?: ((parent: core.EnvironmentInjector) => core.EnvironmentInjector | null) | null;
  setInput?:
    ((instance: object, node: unknown, value: unknown, publicName: string, field: string) => void) | null;
}

export interface PipeDefinition {
  readonly type: Class;
  readonly name: string;
  readonly pure: boolean;
  readonly standalone: boolean;
  factory: ((type?: unknown) => unknown) | null;
}

interface HostDirective {
  readonly directive: Class;
  readonly inputs: Readonly<Record<string, string>>;
  readonly outputs: Readonly<Record<string, string>>;
}

export type Listed<T> = readonly T[] | (() => readonly T[]);
export type Providers = readonly unknown[];
export type Resolver = (definition: Definition, process?: (providers: Providers) => Providers) => void;

type Compiled = {
  readonly ɵcmp?: Definition;
  readonly ɵdir?: Definition;
  readonly ɵpipe?: PipeDefinition;
  readonly ɵmod?: unknown;
  readonly ɵfac?: (type?: unknown) => unknown;
};

const own = <K extends keyof Compiled>(type: unknown, key: K): Compiled[K] | undefined =>
  typeof type === 'function' && Object.hasOwn(type, key) ? (type as Compiled)[key] : undefined;

/** The definition of a component; undefined for any other class. */
export const componentOf = (type: unknown) => own(type, 'ɵcmp');
export const directiveOf = (type: unknown) => own(type, 'ɵdir');
export const pipeOf = (type: unknown) => own(type, 'ɵpipe');
export const isModule = (type: unknown): boolean => own(type, 'ɵmod') !== undefined;

/** True for a class that Angular puts on a page. */
export const isComponent = (type: unknown): boolean => componentOf(type) !== undefined;

/** The name of a class as its author wrote it: compilers put an underscore before it. */
export const plainName = (name: string): string => name.replace(/^_/, '');

/** The name of a class of Angular's; undefined for what is none. */
export const nameOf = (type: unknown): string | undefined =>
  componentOf(type) || directiveOf(type) || pipeOf(type) ? plainName((type as Class).name) : undefined;

/** How a token is called in the code: a class by its name, any other by its export, or else its description. */
export function nameOfToken(token: unknown): string {
  if (typeof token === 'function') return plainName(token.name);
  return exportOf(token) ?? descriptionOf(token) ?? String(token);
}

const descriptionOf = (token: unknown): string | undefined => (token as { _desc?: string } | null)?._desc;

/** The same for a token of which only the description is known. */
export const nameOfDescribed = (description: string): string =>
  exportFitting((value) => descriptionOf(value) === description) ?? description;

/** The factory of a class with its dependencies, as Angular would use it. */
export function factoryOf({ factory, type }: Definition | PipeDefinition): (type?: unknown) => unknown {
  return factory ?? (type as unknown as Compiled).ɵfac!;
}

export const list = <T>(listed: Listed<T> | null | undefined): readonly T[] =>
  (typeof listed === 'function' ? listed() : listed) ?? [];

/** The element a component is written as: `app-hive-card`, or `tr[hive-row]`. */
export const selectorOf = ({ selectors }: Definition): string => {
  const [tag = '', ...attributes] = (selectors[0] ?? []) as string[];
  return attributes.length > 0 ? `${tag}[${attributes[0]}]` : tag;
};

/** The directives a component brings along. */
export const hostDirectivesOf = ({ hostDirectives }: Definition): readonly HostDirective[] =>
  (hostDirectives ?? []).flatMap((one) => (typeof one === 'function' ? one() : [one]));

/** Inputs and outputs a component has by the directives it brings along, by their public names. */
export function broughtBy(definition: Definition): { inputs: string[]; outputs: string[] } {
  const all = hostDirectivesOf(definition);
  return {
    inputs: all.flatMap(({ inputs }) => Object.values(inputs)),
    outputs: all.flatMap(({ outputs }) => Object.values(outputs)),
  };
}

/** Providers in one flat list, each with what it is for. */
export function flatten(
  providers: Providers,
): { token: unknown; provider: Record<string, unknown> | Class }[] {
  return providers.flatMap((one) => {
    const provider = core.resolveForwardRef(one) as Record<string, unknown> | Class | Providers;
    if (Array.isArray(provider)) return flatten(provider);
    const token =
      typeof provider === 'function'
        ? provider
        : core.resolveForwardRef((provider as Record<string, unknown>)['provide']);
    return [{ token, provider: provider as Record<string, unknown> | Class }];
  });
}

/** The name that an input or an output goes by: types know it by its field, which may have an alias. */
export function publicOf(name: string, { inputs, outputs }: Definition): string {
  if (name in inputs || name in outputs) return name;
  return (
    Object.keys(inputs).find((own) => inputs[own]![0] === name) ??
    Object.keys(outputs).find((own) => outputs[own] === name) ??
    name
  );
}

/** The outputs of a component, those of the directives it brings along included. */
export const outputsOf = (definition: Definition): string[] => [
  ...Object.keys(definition.outputs),
  ...broughtBy(definition).outputs,
];
