import type { Framework, How, Import, Leaf, Parts, Template, Unit, UnitKind, Use } from '../facts';

/** A unit while it is read. */
export class OpenUnit {
  kind: UnitKind = 'value';
  framework: Framework | undefined;
  hasElements = false;
  isExported = false;
  text: Parts | undefined;
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
    const lists = {
      ...{ selectors: this.selectors, lends: this.lends, declares: this.declares, imports: this.imports },
      ...{ inputs: [...this.inputs], outputs: [...this.outputs] },
      ...{ slots: [...this.slots], renders: [...this.renders] },
    };
    return {
      ...{ name: this.name, kind: this.kind, line: this.line, uses: this.uses, leaves: this.leaves },
      ...(this.isExported && { isExported: true as const }),
      ...(this.framework && { framework: this.framework }),
      ...(this.text && { text: this.text }),
      ...(this.template && { template: this.template }),
      ...Object.fromEntries(Object.entries(lists).filter(([, list]) => list.length > 0)),
    };
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
