import { dirname, isAbsolute, relative, sep } from 'node:path';
import type { Needed } from '../value';

/** The imports of a file, in the order that people write them in: packages first. */
export class Imports {
  readonly #names = new Map<string, Map<string, Needed>>();

  constructor(
    readonly target: string,
    /** How files of the project are named: `.js` where its own imports have endings. */
    readonly ending: string,
    /** True for a file without types. */
    readonly isPlain = false,
  ) {}

  add(...needed: readonly Needed[]): void {
    for (const one of needed) {
      if (one.isType && this.isPlain) continue;
      const names = this.#names.get(one.from) ?? new Map<string, Needed>();
      this.#names.set(one.from, names);
      const key = `${one.name} ${one.local ?? one.name}`;
      const known = names.get(key);
      if (!known || (known.isType && !one.isType)) names.set(key, one);
    }
  }

  /** The names that are taken. */
  get taken(): ReadonlySet<string> {
    return new Set(
      [...this.#names.values()].flatMap((names) =>
        [...names.values()].map(({ name, local }) => local ?? name),
      ),
    );
  }

  print(): readonly string[] {
    const froms = [...this.#names.keys()];
    const rank = (from: string) =>
      from === 'simulacra' ? 1 : from.startsWith('simulacra/') ? 2 : isAbsolute(from) ? 3 : 0;
    const ordered = froms.sort((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1));
    return ordered.flatMap((from) => printOne(this.specifier(from), [...this.#names.get(from)!.values()]));
  }

  specifier(from: string): string {
    return isAbsolute(from) ? specifierOf(from, this.target, this.ending) : from;
  }
}

function specifierOf(file: string, target: string, ending = ''): string {
  const path = relative(dirname(target), file).split(sep).join('/');
  const written =
    path.replace(/\.[cm]?[jt]sx?$/, '').replace(/\/index$/, '') +
    (/\.[cm]?[jt]sx?$/.test(path) ? ending : '');
  return written.startsWith('.') ? written : `./${written}`;
}

function printOne(specifier: string, names: readonly Needed[]): readonly string[] {
  const whole = names
    .filter(({ name }) => name === '*')
    .map(({ local }) => `import * as ${local} from '${specifier}';`);
  const main = names.find(({ name }) => name === 'default');
  const others = names
    .filter(({ name }) => name !== 'default' && name !== '*')
    .sort((a, b) => ((a.local ?? a.name) < (b.local ?? b.name) ? -1 : 1));
  const isTypes = others.length > 0 && others.every(({ isType }) => isType) && !main;
  const listed = others.map(({ name, local, isType }) => {
    const word = local === undefined || local === name ? name : `${name} as ${local}`;
    return isType && !isTypes ? `type ${word}` : word;
  });
  const parts = [
    ...(main ? [main.local ?? 'Component'] : []),
    ...(listed.length > 0 ? [`{ ${listed.join(', ')} }`] : []),
  ];
  if (parts.length === 0) return whole;
  const type = isTypes || (main?.isType && others.length === 0) ? 'type ' : '';
  return [...whole, `import ${type}${parts.join(', ')} from '${specifier}';`];
}
