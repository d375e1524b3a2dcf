import type { Framework, How, Import, Leaf, Parts, Template, Unit, UnitKind, Use } from '../facts';

type NamedPart = 'inputs' | 'outputs' | 'slots' | 'renders';

/** A unit while it is read. */
export class OpenUnit {
  kind: UnitKind = 'value';
  framework: Framework | undefined;
  hasElements = false;
  isExported = false;
  text: Parts | undefined;
  texts: Unit['texts'];
  template: Template | undefined;
  /** The function whose answer it is. */
  madeBy: string | undefined;
  readonly uses: Use[] = [];
  readonly leaves: Leaf[] = [];
  readonly selectors: string[] = [];
  readonly lends: string[] = [];
  readonly declares: string[] = [];
  readonly imports: string[] = [];
  // Most units have none of them.
  #parts: Map<NamedPart, Set<string>> | undefined;

  constructor(
    public name: string,
    readonly line: number,
  ) {}

  use(name: string, how: How, line: number, more: Partial<Use> = {}): void {
    this.uses.push({ name, how, line, ...more });
  }

  /** Notes an input, an output, a slot, or a prop that renders. */
  add(part: NamedPart, name: string): void {
    const parts = (this.#parts ??= new Map<NamedPart, Set<string>>());
    const names = parts.get(part);
    if (names) names.add(name);
    else parts.set(part, new Set([name]));
  }

  done(): Unit {
    const { name, kind, line, uses, leaves } = this;
    const unit: { -readonly [K in keyof Unit]: Unit[K] } = { name, kind, line, uses, leaves };
    if (this.isExported) unit.isExported = true;
    if (this.framework) unit.framework = this.framework;
    if (this.text) unit.text = this.text;
    if (this.texts) unit.texts = this.texts;
    if (this.template) unit.template = this.template;
    for (const key of ['selectors', 'lends', 'declares', 'imports'] as const)
      if (this[key].length > 0) unit[key] = this[key];
    for (const [part, names] of this.#parts ?? []) unit[part] = [...names];
    return unit;
  }
}

/** What a file imports under which name. */
export interface Imported {
  readonly specifier: string;
  readonly name: string;
}

export function importsByName(imports: readonly Import[]): ReadonlyMap<string, Imported> {
  const found = new Map<string, Imported>();
  for (const { specifier, names } of imports)
    for (const { local, name } of names) found.set(local, { specifier, name });
  return found;
}
