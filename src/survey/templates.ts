import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Template, Unit, Use } from './facts';
import type { Found, Linker } from './link';
import { readAngularTemplate } from './read/angular';

/** Finds what the templates of Angular components use, by selector and by name. */
export class Templates {
  /** The module that declares each component that is not standalone; read when the first is met. */
  #modules: ReadonlyMap<Unit, { readonly file: string; readonly unit: Unit }> | undefined;

  constructor(readonly linker: Linker) {}

  /** What the template of a component uses, each with where it is declared. */
  usesOf(file: string, unit: Unit): readonly (readonly [Found, Use])[] {
    const template = this.#templateOf(file, unit);
    if (!template) return [];
    const lent = this.#lentTo(file, unit);
    return lent.flatMap((found): (readonly [Found, Use])[] => {
      if (found.kind === 'package') return [[found, { name: found.name, how: 'rendered', line: unit.line }]];
      if (found.kind !== 'unit') return [];
      const { name, kind, selectors = [] } = found.unit;
      if (kind === 'pipe')
        return template.pipes.some((pipe) => selectors.includes(pipe))
          ? [[found, { name, how: 'read', line: unit.line }]]
          : [];
      const tag = template.tags.find((one) => selectors.some((selector) => matches(selector, one)));
      if (!tag) return [];
      const isLazy = template.deferred.includes(tag.name) ? { isLazy: true as const } : {};
      return [[found, { name, how: 'rendered', line: template.url ? unit.line : tag.line, ...isLazy }]];
    });
  }

  #templateOf(file: string, { template }: Unit): Template | undefined {
    if (template?.url === undefined) return template;
    try {
      const read = readAngularTemplate(readFileSync(join(dirname(file), template.url), 'utf8'), 1);
      return { ...read, url: template.url };
    } catch {
      return undefined;
    }
  }

  #lentTo(file: string, unit: Unit): readonly Found[] {
    const own = this.#lent(file, unit.lends ?? []);
    if (own.length > 0) return own;
    this.#modules ??= this.#findModules();
    const module = this.#modules.get(unit);
    if (!module) return own;
    const { file: from, unit: declaring } = module;
    return this.#lent(from, [...(declaring.declares ?? []), ...(declaring.imports ?? [])]);
  }

  #lent(file: string, names: readonly string[], seen = new Set<Unit>()): readonly Found[] {
    return names.flatMap((name): readonly Found[] => {
      const found = this.linker.find(file, name);
      if (found?.kind !== 'unit' || seen.has(found.unit))
        return found && found.kind !== 'unit' ? [found] : [];
      seen.add(found.unit);
      const { kind, lends = [], uses } = found.unit;
      if (kind === 'module') return this.#lent(found.file, lends, seen);
      // A list of components, under a name of its own.
      if (kind === 'value')
        return this.#lent(
          found.file,
          uses.map((use) => use.name),
          seen,
        );
      return [found];
    });
  }

  #findModules(): ReadonlyMap<Unit, { readonly file: string; readonly unit: Unit }> {
    const { project } = this.linker;
    const found = new Map<Unit, { file: string; unit: Unit }>();
    for (const file of project.list()) {
      for (const unit of project.facts(file).units) {
        for (const name of unit.declares ?? []) {
          const declared = this.linker.find(file, name);
          if (declared?.kind === 'unit') found.set(declared.unit, { file, unit });
        }
      }
    }
    return found;
  }
}

/** Whether an element of a template is what a selector means: `hive-card`, `button[hiveAction]`, `[hiveTip]`. */
function matches(selector: string, { name, attributes }: Template['tags'][number]): boolean {
  const bare = selector.replace(/:not\([^)]*\)/g, '');
  const [, element = ''] = /^([\w-]*)/.exec(bare) ?? [];
  if (element && element.toLowerCase() !== name.toLowerCase()) return false;
  const wanted = [...bare.matchAll(/\[([\w-]+)[^\]]*\]/g)].map(([, attribute]) => attribute!);
  if (!element && wanted.length === 0) return false;
  return wanted.every((attribute) => attributes.includes(attribute));
}
