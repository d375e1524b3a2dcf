import type { Unit } from './facts';
import type { Project } from './project';
import { importsByName, type Imported } from './read/unit';

/** What a name stands for. */
export type Found =
  | { readonly kind: 'unit'; readonly file: string; readonly unit: Unit }
  | { readonly kind: 'package'; readonly specifier: string; readonly name: string; readonly entry?: string }
  /** A whole file: `import * as api`. */
  | { readonly kind: 'file'; readonly file: string }
  | { readonly kind: 'nowhere'; readonly specifier: string };

/** Follows names to what they stand for: through imports, barrels and what is handed on. */
export class Linker {
  readonly #units = new Map<string, ReadonlyMap<string, Unit>>();
  readonly #exported = new Map<string, Map<string, Found | undefined>>();
  readonly #imports = new Map<string, ReadonlyMap<string, Imported>>();
  readonly #found = new Map<string, Map<string, Found | undefined>>();

  constructor(readonly project: Project) {}

  unitsOf(file: string): ReadonlyMap<string, Unit> {
    let units = this.#units.get(file);
    if (!units)
      this.#units.set(
        file,
        (units = new Map(this.project.facts(file).units.map((unit) => [unit.name, unit]))),
      );
    return units;
  }

  #importsOf(file: string): ReadonlyMap<string, Imported> {
    let imports = this.#imports.get(file);
    if (!imports) this.#imports.set(file, (imports = importsByName(this.project.facts(file).imports)));
    return imports;
  }

  /** What a name of a file stands for; undefined for one that it neither declares nor imports. */
  find(file: string, name: string, member?: string): Found | undefined {
    let names = this.#found.get(file);
    if (!names) this.#found.set(file, (names = new Map<string, Found | undefined>()));
    let found = names.get(name);
    // A second time costs as little for a name that stands for nothing: most are of the language.
    if (!found && !names.has(name)) names.set(name, (found = this.#handedOn(file, name)));
    if (!member || found?.kind !== 'file') return found;
    return this.exported(found.file, member) ?? found;
  }

  #declared(file: string, name: string): Found | undefined {
    const unit = this.unitsOf(file).get(name);
    return unit && { kind: 'unit', file, unit };
  }

  #imported(file: string, { specifier, name }: Imported, seen?: Set<string>): Found | undefined {
    const target = this.project.resolve(file, specifier);
    switch (target.kind) {
      case 'file':
        return name === '*'
          ? { kind: 'file', file: target.file }
          : (this.exported(target.file, name, seen) ?? { kind: 'file', file: target.file });
      case 'package': {
        const entry = target.entry === undefined ? {} : { entry: target.entry };
        return { kind: 'package', specifier: target.name, name, ...entry };
      }
      case 'nowhere':
        return { kind: 'nowhere', specifier };
      case 'asset':
        return undefined;
    }
  }

  /** What a file exports under a name. */
  exported(file: string, name: string, seen = new Set<string>()): Found | undefined {
    const known = this.#exported.get(file) ?? new Map<string, Found | undefined>();
    this.#exported.set(file, known);
    if (known.has(name)) return known.get(name);
    const isWhole = seen.size === 0;
    const found = this.#findExported(file, name, seen);
    // Within a circle of files nothing is found that is there all the same.
    if (isWhole || found) known.set(name, found);
    return found;
  }

  #findExported(file: string, name: string, seen: Set<string>): Found | undefined {
    const key = `${file}\0${name}`;
    if (seen.has(key)) return undefined;
    seen.add(key);
    const { exports } = this.project.facts(file);
    for (const one of exports) {
      if (one.name !== name) continue;
      const { specifier, local = name } = one;
      if (specifier !== undefined) return this.#imported(file, { specifier, name: local }, seen);
      return this.#handedOn(file, local, seen);
    }
    if (name === 'default') return undefined;
    for (const one of exports) {
      if (one.name !== '*' || one.specifier === undefined) continue;
      const target = this.project.resolve(file, one.specifier);
      const found = target.kind === 'file' ? this.exported(target.file, name, seen) : undefined;
      if (found) return found;
    }
    return undefined;
  }

  // A name that is exported may be one that was imported.
  #handedOn(file: string, local: string, seen?: Set<string>): Found | undefined {
    const imported = this.#importsOf(file).get(local);
    return imported ? this.#imported(file, imported, seen) : this.#declared(file, local);
  }
}
