import * as core from '@angular/core';
import type { AnyFunction } from '../core/spy';
import { membersOf } from '../core/stand-in';
import { isProbe, type StubRecord } from '../stage/stubs';
import {
  broughtBy,
  factoryOf,
  componentOf,
  flatten,
  type Class,
  type Definition,
  type PipeDefinition,
  type Providers,
} from './definitions';
import type { StubOrder } from './surroundings';
import { throwerIn } from './thrown';
import { bodies, controlOf, enter, take, type Field, type StubBody } from './stub-body';

const stubTypes = new WeakSet<object>();

/** True for a stub class created here. */
export const isStubType = (type: unknown): boolean => stubTypes.has(type as object);

/**
 * The definition that replaces a component or directive. It has the original's selectors, inputs, outputs and
 * `exportAs`, and nothing else. Queries and injections of the original class find the stub.
 */
export function stubDirective(record: StubRecord, original: Definition, order: () => StubOrder): Definition {
  const brought = broughtBy(original);
  const inputs = { ...original.inputs, ...fieldsFor(brought.inputs) };
  const outputs = { ...original.outputs, ...outputsFor(brought.outputs) };
  const like = { ...original, inputs, outputs };
  const drawn = drawnBy(record, original);
  if (drawn) return takePlace(like, drawn, order);
  const isComponent = Boolean(original.template);
  const type = makeClass(record.name, like, order, isComponent) as unknown as new () => object;
  const made = { ...(isComponent ? blankComponent() : blankDirective()), type } as unknown as Definition;
  return Object.assign(made, place(like), {
    setInput: (instance: object, _: unknown, value: unknown, name: string, field: string) => {
      const body = take(instance, name, value);
      const current = body.fields[field];
      if (core.isSignal(current)) (current as core.WritableSignal<unknown>).set(value);
      else body.fields[field] = value;
    },
    factory: () => new type(),
    providersResolver: aliases(original, type, undefined),
  });
}

// Angular creates one empty definition with all its fields. Each stub copies it.
let component: object | undefined;
const blankComponent = (): object =>
  (component ??= core.ɵɵdefineComponent({
    ...{ type: class {}, selectors: [['sim-part']], standalone: true, encapsulation: 2 },
    ...{ decls: 1, vars: 0, ngContentSelectors: ['*'], template: project },
  } as never) as object);
let directive: object | undefined;
const blankDirective = (): object =>
  (directive ??= core.ɵɵdefineDirective({ type: class {}, standalone: true } as never) as object);

/** What matches a definition to elements and bindings. */
const place = ({ selectors, exportAs, inputs, outputs }: Definition) => ({
  selectors,
  exportAs,
  inputs,
  outputs,
  declaredInputs: Object.fromEntries(Object.keys(inputs).map((name) => [name, name])),
});

// A stub renders its projected content.
function project(flags: number): void {
  if ((flags & 1) === 0) return;
  core.ɵɵprojectionDef();
  core.ɵɵprojection(0);
}

/** The test's own component or template for the stub. */
function drawnBy({ how, name }: StubRecord, original: Definition): Definition | undefined {
  const { render } = how;
  return typeof render === 'string'
    ? componentOf(compile(name, render, Object.keys(original.inputs)))
    : componentOf(render);
}

function compile(name: string, template: string, inputs: readonly string[]): Class {
  const type = class {};
  // Angular derives a function name from the class name, so it must not contain characters of a selector.
  Object.defineProperty(type, 'name', { value: name.replace(/\W/g, '_') });
  core.Component({ selector: 'sim-part', template, inputs: [...inputs] })(type);
  return type;
}

interface SignalNode {
  applyValueToInputSignal(node: SignalNode, value: unknown): void;
}

/** Renders the test's component in place of the original. Values it has no input for are only recorded. */
function takePlace(original: Definition, drawn: Definition, order: () => StubOrder): Definition {
  const make = factoryOf(drawn);
  const inputs = { ...fieldsFor(Object.keys(original.inputs)), ...drawn.inputs };
  const outputs = { ...outputsFor(Object.keys(original.outputs)), ...drawn.outputs };
  const like = { ...original, inputs, outputs };
  return {
    ...drawn,
    tView: null,
    ...place(like),
    setInput: (instance, node, value, name, field) => {
      take(instance, name, value);
      if (node) (node as SignalNode).applyValueToInputSignal(node as SignalNode, value);
      else (instance as Field)[field] = value;
    },
    factory: (type) => {
      const instance = make(type) as object;
      const added = Object.entries(outputs).filter(([name]) => !(name in drawn.outputs));
      enter(order(), instance, { ...original, outputs: Object.fromEntries(added) }, true);
      return instance;
    },
    providersResolver: aliases(original, drawn.type, drawn.providersResolver),
  };
}

const fieldsFor = (names: readonly string[]) =>
  Object.fromEntries(names.map((name) => [name, [`ɵin_${name}`, 0, null] as const]));
const outputsFor = (names: readonly string[]) =>
  Object.fromEntries(names.map((name) => [name, `ɵout_${name}`]));

const signalBased = 1;

function makeClass(name: string, original: Definition, order: () => StubOrder, isComponent: boolean): Class {
  // Only the methods of a stubbed class are known. Its constructor, which creates the fields, never runs.
  let known: ReadonlySet<string> | undefined;
  const methods = () => (known ??= membersOf(original.type.prototype as object).methods);
  const type = class {
    [field: string]: unknown;

    constructor() {
      for (const [field, flags] of Object.values(original.inputs))
        this[field] = (flags & signalBased) !== 0 ? core.signal(undefined) : undefined;
      const ordered = order();
      const { record, surroundings } = ordered;
      const reached = new Proxy(this, {
        get: (target, key, receiver) =>
          typeof key === 'symbol' || key in target || isProbe(key) || /^(ng|ɵ)/.test(key)
            ? Reflect.get(target, key, receiver)
            : isAskedFromWithin() && methods().has(key)
              ? record.answerAsMethod(key)
              : (record.reach() as Field)[key],
      });
      // Components around the stub reach it by a query. For them a missing member is a failure.
      const isAskedFromWithin = () => {
        const asker = record.whoAsks?.();
        return asker !== undefined && !surroundings.namesAbove(body.element()!).includes(asker);
      };
      record.whoAsks = () => throwerIn(new Error());
      const body = enter(ordered, this, original, isComponent);
      bodies.set(reached, body);
      Object.assign(this, controlOf(body), record.handle);
      return reached;
    }

    ngDoCheck(): void {
      const body = bodies.get(this)!;
      serveForms(this, body);
      body.give();
    }
  };
  Object.defineProperty(type, 'name', { value: name });
  stubTypes.add(type);
  return type as never;
}

interface FormControl {
  valueAccessor?: unknown;
}

// Some controls inject their form directive and register themselves with it. A stub has to do that too.
function serveForms(stub: object, body: StubBody): void {
  if (body.servesForms) return;
  body.servesForms = true;
  for (const beside of core.ɵgetDirectives(body.element()!) as FormControl[])
    if ('valueAccessor' in beside && !beside.valueAccessor) beside.valueAccessor = stub;
}

/** Makes the original class, and other tokens that alias it, resolve to the stub. */
function aliases(
  original: Definition,
  stub: Class,
  others: Definition['providersResolver'],
): Definition['providersResolver'] {
  const own = { provide: original.type, useExisting: stub };
  const resolve = original.providersResolver;
  // Angular's own feature knows how to register providers.
  const bare = { providersResolver: null } as unknown as Definition;
  (core.ɵɵProvidersFeature as unknown as (providers: Providers) => (on: object) => void)([own])(bare);
  return (definition, process = same) => {
    others?.(definition, process);
    if (!resolve) return bare.providersResolver!(definition, process);
    resolve(definition, (providers) => process([own, ...aliasesIn(providers, original.type, stub)]));
  };
}

const same = (providers: Providers) => providers;

const aliasesIn = (providers: Providers, original: Class, stub: Class): Providers =>
  flatten(providers).flatMap(({ provider }) => {
    const { useExisting } = provider as Record<string, unknown>;
    return useExisting !== undefined && core.resolveForwardRef(useExisting) === original
      ? [{ ...provider, useExisting: stub }]
      : [];
  });

/** The definition that replaces a pipe. It returns its input, or what the test says. */
export function stubPipe(original: PipeDefinition, order: () => StubOrder): PipeDefinition {
  const make = ({ record }: StubOrder) => ({
    transform(value: unknown, ...args: unknown[]): unknown {
      const { render } = record.how;
      record.given.push(args.length > 0 ? { value, args } : { value });
      return typeof render === 'function' ? (render as AnyFunction)(value, ...args) : (render ?? value);
    },
  });
  return { ...original, type: class {}, factory: () => make(order()) };
}
