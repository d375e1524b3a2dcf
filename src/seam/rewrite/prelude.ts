import type { Names } from './names';
import type { Reference } from './references';
import type { Binding, Request } from './requests';
import type { SeamOptions } from './rewrite';

export type Form = 'commonjs' | 'module';

interface Linked {
  readonly request: Request;
  readonly bindings: readonly { readonly binding: Binding; readonly references: readonly Reference[] }[];
  /** The names of `export *`, where they are known. */
  readonly star: readonly string[] | undefined;
}

/** The statements that open the way to one module, and give each name taken from it its look-up. */
export function printLink(names: Names, options: SeamOptions, { request, bindings, star }: Linked): string[] {
  const { specifier, kind, handedOn } = request;
  const link = names.link(request);
  const quoted = JSON.stringify(specifier);
  const load = options.form === 'commonjs' ? `() => require(${quoted})` : `() => import(${quoted})`;
  const wait = options.form === 'module' ? 'await ' : '';
  const lines = [
    `const ${link} = ${wait}${names.seam}.link(${printNamed(specifier, options)}, ${load}, ${printUses(request, bindings)});`,
    ...bindings.flatMap(({ binding, references }) => names.declare(binding, link, references)),
  ];
  if (kind === 'star' && !star) lines.push(`${names.seam}.star(${link});`);
  const handed = [...handedOn, ...(star ?? []).map((name) => ({ name, exported: name }))];
  for (const { name, exported } of handed) lines.push(names.tell(exported, options.form, request, name));
  return lines;
}

/** What is done with each export: 1 for what is called, 2 for what is only looked into, 3 for what is handed on. */
function printUses({ kind, handedOn }: Request, bindings: Linked['bindings']): string {
  const uses: Record<string, number> = {};
  const add = (name: string, use: number) => {
    uses[name] = use === 1 || uses[name] === undefined ? use : uses[name];
  };
  for (const { binding, references } of bindings) {
    const isWhole = binding.name === '*' || binding.name === 'module.exports';
    for (const { use, member, isCalled } of references) {
      const isValue = use === 'made' || use === 'element' || use === 'looked into';
      if (!isWhole) add(binding.name, isCalled && use === 'called' ? 1 : isValue ? 2 : 0);
      else if (member === undefined) add('*', 0);
      else add(member, isCalled ? 1 : use === 'looked into' ? 0 : 2);
    }
  }
  for (const { name } of handedOn) uses[name] ??= 3;
  if (kind === 'star') uses['*'] ??= 3;
  return JSON.stringify(uses);
}

/** A module as the look-ups are told of it: its specifier, and what else is known beforehand. */
export function printNamed(
  specifier: string,
  { idOf, functionsOf }: SeamOptions,
  isNamedByTest = false,
): string {
  const id = idOf?.(specifier);
  const functions = isNamedByTest && id !== undefined ? functionsOf?.(specifier) : undefined;
  return JSON.stringify([specifier, ...(id === undefined ? [] : [id]), ...(functions ? [functions] : [])]);
}
