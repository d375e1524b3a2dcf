import { usage } from '../uses';
import type { Names } from './names';
import type { Reference } from './references';
import { isWhole, type Binding, type Request } from './requests';
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

/** What is done with each export. What is called counts before what is looked into. */
function printUses({ kind, handedOn }: Request, bindings: Linked['bindings']): string {
  const { passed, called, lookedInto } = usage;
  const uses: Record<string, number> = {};
  const add = (name: string, done: number) => {
    uses[name] = done === called ? done : (uses[name] ?? done);
  };
  for (const { binding, references } of bindings) {
    for (const { use, member, isCalled } of references) {
      const isPart = use === 'made' || use === 'element';
      if (!isWhole(binding))
        add(binding.name, use === 'called' ? called : isPart || use === 'looked into' ? lookedInto : passed);
      else if (member === undefined) add('*', passed);
      else add(member, isCalled ? called : isPart ? lookedInto : passed);
    }
  }
  for (const { name } of handedOn) uses[name] ??= usage.handedOn;
  if (kind === 'star') uses['*'] ??= usage.handedOn;
  return JSON.stringify(uses);
}

/** A module as the look-ups get it: its specifier, and what else is known beforehand. */
export function printNamed(
  specifier: string,
  { idOf, functionsOf }: SeamOptions,
  isNamedByTest = false,
): string {
  const id = idOf?.(specifier);
  const functions = isNamedByTest && id !== undefined ? functionsOf?.(specifier) : undefined;
  return JSON.stringify([specifier, ...(id === undefined ? [] : [id]), ...(functions ? [functions] : [])]);
}
