import * as core from '@angular/core';
import type { StubRecord, StubSet } from '../stage/stubs';
import {
  factoryOf,
  flatten,
  componentOf,
  directiveOf,
  pipeOf,
  isModule,
  list,
  nameOf,
  selectorOf,
  type Class,
  type Definition,
  type PipeDefinition,
  type Providers,
  type Resolver,
} from './definitions';
import { isStubType, stubDirective, stubPipe } from './stub-definitions';

/** A component that is rendered: its element, and what it is. */
export interface Rendered {
  readonly element: Element;
  readonly instance: object;
  readonly definition: Definition;
  readonly record: StubRecord | undefined;
}

export interface Surroundings {
  /** The component that is put on the stage. */
  readonly subject: unknown;
  readonly stubs: StubSet;
  /** What the test provides: it beats what components and modules provide. */
  readonly provided: ReadonlyMap<unknown, unknown>;
  onCreated(rendered: Rendered): void;
  /** Told of who is being made when something could not be. */
  onFailed(error: unknown, asker: string): void;
}

/** Makes copies of definitions in which everything below a subject is real or a stub, as the test says. */
export class Scope {
  readonly #copies = new Map<Definition, Map<number, Definition>>();
  readonly #stubs = new Map<unknown, Definition | PipeDefinition>();

  constructor(readonly around: Surroundings) {}

  /** The copy of a component that renders its children at a level below the subject (1 for its own). */
  component(definition: Definition, level: number): Definition {
    // Without a depth the level makes no difference.
    const key = this.around.stubs.depth === Infinity ? 1 : level;
    const known = this.#copies.get(definition) ?? new Map<number, Definition>();
    this.#copies.set(definition, known);
    let copy = known.get(key);
    if (!copy) known.set(key, (copy = this.#copy(definition, level)));
    return copy;
  }

  #copy(definition: Definition, level: number): Definition {
    const copy: Definition = { ...definition, tView: null, ...this.#watched(definition) };
    copy.directiveDefs = definition.directiveDefs
      ? once(() => list(definition.directiveDefs).map((child) => this.#child(child, level)))
      : null;
    copy.pipeDefs = definition.pipeDefs
      ? once(() => list(definition.pipeDefs).map((pipe) => this.#pipe(pipe)))
      : null;
    if (definition.getStandaloneInjector)
      copy.getStandaloneInjector = (parent) => this.#standaloneInjector(definition, level, parent);
    return copy;
  }

  /** What stands for a component, directive or pipe that a `@defer` block has loaded. */
  loaded(type: unknown): unknown {
    const component = componentOf(type) ?? directiveOf(type);
    const pipe = pipeOf(type);
    if (component) return { [component.template ? 'ɵcmp' : 'ɵdir']: this.#child(component, 1) };
    return pipe ? { ɵpipe: this.#pipe(pipe) } : type;
  }

  #child(child: Definition, level: number): Definition {
    if (isStubType(child.type)) return child;
    const isComponent = Boolean(child.template);
    const record = this.around.stubs.peek(child.type, isComponent ? level : 0, () => selectorOf(child));
    if (!record)
      return isComponent ? this.component(child, level + 1) : { ...child, ...this.#watched(child) };
    return this.#stubOf(child.type, record, () =>
      stubDirective(record, child, { ...this.around, onUsed: () => this.#used(child, record) }),
    );
  }

  #pipe(pipe: PipeDefinition): PipeDefinition {
    const record = this.around.stubs.peek(pipe.type, 0, () => pipe.name);
    if (!record) return { ...pipe, factory: this.#guard(pipe, factoryOf(pipe)) };
    return this.#stubOf(pipe.type, record, () => stubPipe(record, pipe, () => this.#used(pipe, record)));
  }

  #stubOf<D extends Definition | PipeDefinition>(type: Class, record: StubRecord, make: () => D): D {
    const known = this.#stubs.get(record) ?? make();
    this.#stubs.set(record, known);
    return known as D;
  }

  #used({ type }: { type: Class }, record: StubRecord): void {
    this.around.stubs.note(type, record);
  }

  /** The parts of a definition by which its making is seen, and its providers give way to the test's. */
  #watched(definition: Definition): Partial<Definition> & Pick<Definition, 'factory'> {
    const make = this.#guard(definition, factoryOf(definition));
    const factory = (type?: unknown) => {
      const instance = make(type) as object;
      if (definition.template) {
        const element = core.inject(core.ElementRef).nativeElement as Element;
        if (definition.type !== this.around.subject) this.around.stubs.note(definition.type, undefined);
        this.around.onCreated({ element, instance, definition, record: undefined });
      }
      return instance;
    };
    return {
      factory,
      ...(definition.providersResolver && {
        providersResolver: this.#overriding(definition.providersResolver),
      }),
      ...(definition.viewProvidersResolver && {
        viewProvidersResolver: this.#overriding(definition.viewProvidersResolver),
      }),
    };
  }

  #guard({ type }: Definition | PipeDefinition, make: (type?: unknown) => unknown) {
    return (asked?: unknown): unknown => {
      try {
        return make(asked);
      } catch (error) {
        this.around.onFailed(error, nameOf(type) ?? type.name);
        throw error;
      }
    };
  }

  #overriding(resolve: Resolver): Resolver {
    return (definition, process = (same) => same) =>
      resolve(definition, (providers) => this.override(process(providers)));
  }

  /** Providers with those of the test in place of their own. */
  override(providers: Providers): Providers {
    const { provided } = this.around;
    if (provided.size === 0) return providers;
    return flatten(providers).map(({ token, provider }) =>
      provided.has(token) ? { provide: token, useValue: provided.get(token) } : provider,
    );
  }

  // Modules that a component imports bring an injector of their own, which would beat the test's.
  #standaloneInjector(definition: Definition, level: number, parent: core.EnvironmentInjector) {
    const modules = [...this.#modulesOf(definition, level, new Set())];
    if (modules.length === 0) return null;
    const overrides = [...this.around.provided].map(([provide, useValue]) => ({ provide, useValue }));
    const injector = core.createEnvironmentInjector(
      [core.importProvidersFrom(...(modules as core.Type<unknown>[])), overrides],
      parent,
    );
    parent.get(core.DestroyRef).onDestroy(() => injector.destroy());
    return injector;
  }

  #modulesOf(definition: Definition, level: number, seen: Set<unknown>): Set<unknown> {
    const found = new Set<unknown>();
    for (const listed of list(definition.dependencies)) {
      const type = core.resolveForwardRef(listed);
      if (seen.has(type)) continue;
      seen.add(type);
      if (isModule(type)) found.add(type);
      const child = componentOf(type);
      if (child?.standalone && !this.around.stubs.peek(type, level))
        for (const module of this.#modulesOf(child, level + 1, seen)) found.add(module);
    }
    return found;
  }
}

function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}
