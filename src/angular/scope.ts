import * as core from '@angular/core';
import type { StubRecord } from '../stage/stubs';
import {
  elementHere,
  readProvision,
  SURROUNDINGS,
  surroundingsHere,
  type StubOrder,
  type Surroundings,
} from './surroundings';
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

/**
 * Copies component definitions so that each child is real or a stub, as the test says. Angular caches what it reads
 * from a definition, so subjects with the same options share the copies. A copy looks up the surroundings of the
 * current subject each time it creates something.
 */
export class Scope {
  readonly #copies = new Map<Definition, Map<number, Definition>>();
  readonly #stubs = new Map<Class, Map<number, Definition | PipeDefinition>>();

  private constructor(private surroundings: Surroundings) {}

  static readonly #all = new Map<string, Scope>();

  /** The scope for a subject with these options. */
  static for(surroundings: Surroundings): Scope {
    const key = keyOf(surroundings);
    const known = Scope.#all.get(key);
    if (known) known.surroundings = surroundings;
    const scope = known ?? new Scope(surroundings);
    // Drop the least recently used scope if there are many: each one holds copies of many definitions.
    Scope.#all.delete(key);
    Scope.#all.set(key, scope);
    if (Scope.#all.size > most) Scope.#all.delete(Scope.#all.keys().next().value!);
    return scope;
  }

  /** Stops other subjects from sharing the copies: Angular caches how a `@defer` block loaded. */
  retire(): void {
    for (const [key, scope] of Scope.#all) if (scope === this) Scope.#all.delete(key);
  }

  /** The copy of a component whose children are `level` levels below the subject (1 for the subject's own). */
  component(definition: Definition, level: number): Definition {
    // Without `depth` the level does not matter.
    const key = this.surroundings.stubs.depth === Infinity ? 1 : level;
    const known = this.#copies.get(definition) ?? new Map<number, Definition>();
    this.#copies.set(definition, known);
    let copy = known.get(key);
    if (!copy) known.set(key, (copy = this.#copy(definition, level)));
    return copy;
  }

  #copy(definition: Definition, level: number): Definition {
    const copy: Definition = { ...definition, tView: null, ...this.#watched(definition) };
    copy.directiveDefs = definition.directiveDefs
      ? once(() => this.#importsOf(definition).map((child) => this.#child(child, level)))
      : null;
    copy.pipeDefs = definition.pipeDefs
      ? once(() => list(definition.pipeDefs).map((pipe) => this.#pipe(pipe)))
      : null;
    if (definition.getStandaloneInjector)
      copy.getStandaloneInjector = (parent) => this.#standaloneInjector(definition, level, parent);
    return copy;
  }

  #importsOf({ directiveDefs, type }: Definition): readonly Definition[] {
    try {
      return list(directiveDefs);
    } catch (error) {
      this.surroundings.onFailed(error, nameOf(type) ?? type.name);
      throw error;
    }
  }

  /** The replacement of a component, directive or pipe that a `@defer` block has loaded. */
  loaded(type: unknown): unknown {
    const component = componentOf(type) ?? directiveOf(type);
    const pipe = pipeOf(type);
    if (component) return { [component.template ? 'ɵcmp' : 'ɵdir']: this.#child(component, 1) };
    return pipe ? { ɵpipe: this.#pipe(pipe) } : type;
  }

  #child(child: Definition, level: number): Definition {
    if (isStubType(child.type)) return child;
    const isComponent = Boolean(child.template);
    const at = isComponent ? level : 0;
    const find = ({ stubs }: Surroundings) => stubs.peek(child.type, at, () => selectorOf(child));
    const record = find(this.surroundings);
    if (record) return this.#stubOf(child, at, () => stubDirective(record, child, () => order(child, find)));
    return isComponent ? this.component(child, level + 1) : { ...child, ...this.#watched(child) };
  }

  #pipe(pipe: PipeDefinition): PipeDefinition {
    const find = ({ stubs }: Surroundings) => stubs.peek(pipe.type, 0, () => pipe.name);
    const record = find(this.surroundings);
    if (record) return this.#stubOf(pipe, 0, () => stubPipe(pipe, () => order(pipe, find)));
    const make = this.#guard(pipe, factoryOf(pipe));
    const factory = (asked?: unknown): unknown => {
      const made = make(asked);
      // By the name that templates call it by.
      surroundingsHere().stubs.note(pipe.type, undefined, pipe.name);
      return made;
    };
    return { ...pipe, factory };
  }

  #stubOf<D extends Definition | PipeDefinition>({ type }: D, level: number, make: () => D): D {
    const known = this.#stubs.get(type) ?? new Map<number, Definition | PipeDefinition>();
    this.#stubs.set(type, known);
    if (!known.has(level)) known.set(level, make());
    return known.get(level) as D;
  }

  /** Changes to a definition that record its creation and let the test's values override its providers. */
  #watched(definition: Definition): Partial<Definition> & Pick<Definition, 'factory'> {
    const make = this.#guard(definition, factoryOf(definition));
    const factory = (type?: unknown) => {
      const instance = make(type) as object;
      if (definition.template) {
        const { subject, stubs, onCreated } = surroundingsHere();
        if (definition.type !== subject) stubs.note(definition.type, undefined);
        onCreated({ element: elementHere(), instance, definition, record: undefined });
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
        // Asked for only here: a table makes a thousand components.
        core.inject(SURROUNDINGS).onFailed(error, nameOf(type) ?? type.name);
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
    const { provided } = this.surroundings;
    if (provided.size === 0) return providers;
    return flatten(providers).map(({ token, provider }) =>
      provided.has(token)
        ? { provide: token, useFactory: () => readProvision(core.inject(SURROUNDINGS).provided.get(token)!) }
        : provider,
    );
  }

  // Modules that a component imports bring an injector of their own, which would beat the test's.
  #standaloneInjector(definition: Definition, level: number, parent: core.EnvironmentInjector) {
    const modules = [...this.#modulesOf(definition, level, new Set())];
    if (modules.length === 0) return null;
    const overrides = [...parent.get(SURROUNDINGS).provided].map(([provide, one]) => ({
      provide,
      useFactory: () => readProvision(one),
    }));
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
      if (child?.standalone && !this.surroundings.stubs.peek(type, level, () => selectorOf(child)))
        for (const module of this.#modulesOf(child, level + 1, seen)) found.add(module);
    }
    return found;
  }
}

const most = 200;

function once<T>(make: () => T): () => T {
  let made: T | undefined;
  return () => (made ??= make());
}

/** The stub that is being made in the current surroundings. */
function order(
  { type }: Definition | PipeDefinition,
  find: (surroundings: Surroundings) => StubRecord | undefined,
): StubOrder {
  const surroundings = core.inject(SURROUNDINGS);
  const record = find(surroundings)!;
  surroundings.stubs.note(type, record);
  return { record, surroundings };
}

const numbers = new WeakMap<object, number>();
let last = 0;

function numberOf(value: unknown): unknown {
  if ((typeof value !== 'object' || value === null) && typeof value !== 'function') return value;
  const known = numbers.get(value) ?? ++last;
  numbers.set(value, known);
  return `#${known}`;
}

/** What a test says of a subject's children and surroundings, as far as a definition depends on it. */
function keyOf({ subject, stubs: { records, kept, depth }, provided }: Surroundings): string {
  const plain = `${numberOf(subject) as string} ${depth}`;
  if (records.length + kept.length + provided.size === 0) return plain;
  const listed = records.map(({ target, how }) => [numberOf(target), numberOf(how.render)]);
  return plain + JSON.stringify([listed, kept.map(numberOf), [...provided.keys()].map(numberOf)]);
}
