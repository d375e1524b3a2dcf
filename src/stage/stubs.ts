import { markOf } from '../core/mark';
import { reportRefusal } from '../core/ownership';
import { explain } from './errors';
import { isSpy, spy, type AnyFunction, type Spy } from '../core/spy';

/** How a child is replaced, as the user said it. Made by the `stub` function of a framework. */
export interface Stub {
  readonly simulacra: 'stub';
  /** The component, or its name. */
  readonly target: unknown;
  /** The user's own rendering; the default stub without. */
  readonly render: unknown;
  /** What a parent reaches through a ref: method names, or methods with their answers. */
  readonly handle: readonly string[] | Readonly<Record<string, unknown>> | undefined;
  /** True for a stub out of a team's defaults: not every test need have use for it. */
  readonly spare?: boolean;
}

/** A stub as its author may have said it in short: a component or its name. */
export const asStub = (value: unknown): Stub => (isStub(value) ? value : makeStub(value));

/** How a child is replaced, in full. */
export const makeStub = (
  target: unknown,
  { render, handle }: Partial<Pick<Stub, 'render' | 'handle'>> = {},
): Stub => ({ simulacra: 'stub', target, render, handle });

/** True for what `stub()` returns. */
export const isStub = (value: unknown): value is Stub => markOf(value) === 'stub';

/** One stub that is rendered: what it was given, and where it is. */
export interface StubInstance {
  props: Record<string, unknown>;
  /** Its outermost element; undefined for a rendering of its own without one. */
  element(): Element | undefined;
  /** What its parent listens to, by name; functions among the props count without it. */
  heard?(): Record<string, AnyFunction>;
}

/** A child that is replaced in one subject, and everything its replacements were given. */
export class StubRecord {
  /** Every props object, in the order given. */
  readonly given: Record<string, unknown>[] = [];
  readonly instances: StubInstance[] = [];
  readonly handle: Record<string, Spy>;
  used = false;
  /** The component that asks for a member right now, where the framework knows. */
  whoAsks: (() => string | undefined) | undefined;

  constructor(
    readonly target: unknown,
    readonly name: string,
    readonly how: Pick<Stub, 'render' | 'handle'>,
    /** True for a stub the test itself lists: it must be of use. */
    readonly listed: boolean,
  ) {
    this.handle = makeHandle(how.handle);
  }

  readonly #missed: string[] = [];
  readonly #methods: Record<string, Spy> = {};

  /** A method of the original, where that is known to have it: it takes the call down and returns nothing. */
  answerAsMethod(name: string): Spy {
    return this.handle[name] ?? (this.#methods[name] ??= spy(undefined, name));
  }

  /** What a parent asked of a stub that nobody listed, and did not find. */
  complainOfMissed(): Error | undefined {
    const [member] = this.#missed;
    return member === undefined ? undefined : this.#explainMember(member);
  }

  #explainMember(member: string): Error {
    const known = Object.keys(this.handle);
    return explain('SIM-STUB-HANDLE', { stub: this.name, member, known, by: this.whoAsks?.() });
  }

  // Stubs made by `depth` were not listed one by one, so a missing member is reported only if something
  // fails.
  #missMember(member: string): undefined {
    if (!this.listed) {
      this.#missed.push(member);
      return;
    }
    const error = this.#explainMember(member);
    // The component may catch this error, so the test also gets it directly.
    reportRefusal(error);
    throw error;
  }

  /** What a parent gets through a ref: a member it does not have is explained. */
  readonly reach = (): object => this.#reached;

  /**
   * Like {@link reach}, for an original whose ref may be its element: returns the stub's element. A member
   * that elements do not have is reported.
   */
  reachElement(element: Element): Element {
    const own = Object.getPrototypeOf(element) as object;
    const explaining = new Proxy(own, {
      get: (target, key, self) =>
        typeof key === 'symbol' || key in target || isProbe(key) || isFieldOfElements(key)
          ? (Reflect.get(target, key, self) as unknown)
          : this.#missMember(key),
    });
    return Object.setPrototypeOf(element, explaining) as Element;
  }

  readonly #reached = new Proxy({} as object, {
    get: (_, key) => {
      if (typeof key === 'symbol' || isProbe(key)) return undefined;
      return this.handle[key] ?? this.#missMember(key);
    },
    has: (_, key) => typeof key === 'string' && key in this.handle,
  });

  /** The instances on the page, in page order. */
  inPageOrder(): StubInstance[] {
    return [...this.instances].sort((a, b) => {
      const [first, second] = [a.element(), b.element()];
      if (!first || !second || first === second) return 0;
      return first.compareDocumentPosition(second) & 4 ? -1 : 1;
    });
  }
}

let fields: ReadonlySet<string> | undefined;

/** True for what elements of some kind have beside methods (`value`): nobody knows which kind the original is. */
function isFieldOfElements(key: string): boolean {
  fields ??= new Set(
    Object.getOwnPropertyNames(globalThis)
      .filter((name) => /^HTML\w+Element$/.test(name))
      .map((name) => (globalThis as unknown as Record<string, { prototype: object }>)[name]!.prototype)
      .flatMap((prototype) =>
        Object.entries(Object.getOwnPropertyDescriptors(prototype)).flatMap(([name, { get }]) =>
          get ? [name] : [],
        ),
      ),
  );
  return fields.has(key);
}

// Members that tools read of any value.
export const isProbe = (key: string): boolean =>
  /^(then|toJSON|isReactComponent|current|node(Type|Name)|tagName|hasAttribute|prototype|asymmetricMatch|[_$@].*)$/.test(
    key,
  );

function makeHandle(handle: Stub['handle']): Record<string, Spy> {
  if (!handle) return {};
  const entries = Array.isArray(handle)
    ? (handle as readonly string[]).map((name) => [name, undefined] as const)
    : Object.entries(handle as Record<string, unknown>);
  return Object.fromEntries(entries.map(([name, how]) => [name, isSpy(how) ? how : spy(how, name)]));
}

type NameOf = (component: unknown) => string | undefined;

/** Which children of one subject are replaced: those that are listed, and those beyond the depth. */
export class StubSet {
  readonly records: StubRecord[] = [];
  /** Names of the components rendered below the subject, by component. */
  readonly rendered = new Map<unknown, string>();
  /** The names of what was rendered, each once. */
  get renderedNames(): string[] {
    return [...new Set(this.rendered.values())];
  }

  readonly #decided = new Map<unknown, StubRecord | null>();
  readonly #names = new Map<unknown, string>();
  readonly #byName = new Map<string, StubRecord>();
  readonly #byTarget = new Map<unknown, StubRecord>();
  readonly #kept: Set<unknown>;
  /** What stays real beyond the depth. */
  get kept(): readonly unknown[] {
    return [...this.#kept];
  }

  constructor(
    listed: readonly unknown[],
    keep: readonly unknown[],
    readonly depth: number,
    readonly nameOf: NameOf,
    /** What is inside a wrapping of the framework's own (a memo, say), and counts as the same. */
    private readonly unwrap: (component: unknown) => unknown,
    /** The name of a component as a test may also write it. */
    private readonly nameAs: (written: string) => string = (written) => written,
  ) {
    this.#kept = new Set(keep.map((kept) => (typeof kept === 'string' ? kept : unwrap(kept))));
    for (const one of listed) this.#list(asStub(one));
  }

  #list(how: Stub): void {
    const name = typeof how.target === 'string' ? how.target : (this.nameOf(how.target) ?? 'a component');
    const record = new StubRecord(how.target, name, how, !how.spare);
    this.records.push(record);
    if (typeof how.target === 'string')
      for (const written of [how.target, this.nameAs(how.target)]) this.#byName.set(written, record);
    else this.#byTarget.set(this.unwrap(how.target), record);
  }

  /**
   * The record of the stub that replaces a component `level` levels below the subject (1 for its own
   * children). Undefined if the component stays real. The decision is cached for each side of the depth.
   *
   * @param nameThere asked for the name a component without one is registered by
   */
  decide(component: unknown, level: number, nameThere?: () => string | undefined): StubRecord | undefined {
    const record = this.peek(component, level, nameThere);
    this.note(component, record);
    return record;
  }

  /** The same for a component that may never be rendered; {@link note} records when it is. */
  peek(component: unknown, level: number, nameThere?: () => string | undefined): StubRecord | undefined {
    const known = this.#decided.get(component);
    const listed = known === undefined ? this.#decideListed(component, nameThere) : known;
    if (listed) return listed;
    if (level < this.depth || this.#isKept(component)) return undefined;
    return this.#beyond(component);
  }

  /** Takes down that a component was rendered, or the stub in its place. */
  note(component: unknown, record: StubRecord | undefined, name?: string): void {
    const inner = this.unwrap(component);
    if (!this.rendered.has(inner))
      this.rendered.set(inner, name ?? this.#names.get(inner) ?? this.nameOf(component) ?? 'Anonymous');
    if (!record || record.used) return;
    record.used = true;
    if (!record.listed && !this.records.includes(record)) this.records.push(record);
  }

  #decideListed(component: unknown, nameThere: (() => string | undefined) | undefined): StubRecord | null {
    const inner = this.unwrap(component);
    const own = this.nameOf(component) ?? 'Anonymous';
    const there = nameThere?.();
    this.#names.set(inner, own === 'Anonymous' ? (there ?? own) : own);
    const record =
      this.#byTarget.get(inner) ?? this.#byName.get(own) ?? this.#byName.get(there ?? own) ?? null;
    this.#decided.set(component, record);
    return record;
  }

  readonly #beyondDepth = new Map<unknown, StubRecord>();

  #beyond(component: unknown): StubRecord {
    const inner = this.unwrap(component);
    let record = this.#beyondDepth.get(inner);
    if (!record) {
      record = new StubRecord(
        inner,
        this.#names.get(inner) ?? 'Anonymous',
        { render: undefined, handle: undefined },
        false,
      );
      this.#beyondDepth.set(inner, record);
    }
    return record;
  }

  #isKept(component: unknown): boolean {
    return this.#kept.has(this.unwrap(component)) || this.#kept.has(this.nameOf(component) ?? '');
  }

  /** The record for a component or a name; undefined where it is not stubbed. */
  find(component: unknown): StubRecord | undefined {
    if (typeof component === 'string')
      return this.records.find(
        ({ name }) => name === component || this.nameAs(name) === this.nameAs(component),
      );
    const decided = this.#decided.get(component);
    if (decided) return decided;
    const inner = this.unwrap(component);
    return this.records.find(
      ({ target, name }) =>
        this.unwrap(target) === inner ||
        (typeof target === 'string' && [name, this.nameAs(name)].includes(this.nameOf(component) ?? '')),
    );
  }
}
