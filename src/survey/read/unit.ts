import type { Framework, How, Import, Leaf, Parts, Template, Unit, UnitKind, Use } from '../facts';

/** A unit while it is read. */
export class OpenUnit {
  kind: UnitKind = 'value';
  framework: Framework | undefined;
  hasElements = false;
  isExported = false;
  text: Parts | undefined;
  texts: Unit['texts'];
  template: Template | undefined;
  readonly uses: Use[] = [];
  readonly leaves: Leaf[] = [];
  readonly selectors: string[] = [];
  readonly lends: string[] = [];
  readonly declares: string[] = [];
  readonly imports: string[] = [];
  readonly inputs = new Set<string>();
  readonly outputs = new Set<string>();
  readonly slots = new Set<string>();
  readonly renders = new Set<string>();

  constructor(
    public name: string,
    readonly line: number,
  ) {}

  use(name: string, how: How, line: number, more: Partial<Use> = {}): void {
    this.uses.push({ name, how, line, ...more });
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
    for (const key of ['inputs', 'outputs', 'slots', 'renders'] as const)
      if (this[key].size > 0) unit[key] = [...this[key]];
    return unit;
  }
}

/** What a file imports under which name. */
export interface Imported {
  readonly specifier: string;
  readonly name: string;
}

export const importsByName = (imports: readonly Import[]): ReadonlyMap<string, Imported> =>
  new Map(
    imports.flatMap(({ specifier, names }) =>
      names.map(({ local, name }) => [local, { specifier, name }] as const),
    ),
  );
