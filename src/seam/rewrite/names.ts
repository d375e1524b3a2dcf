import type { Form } from './prelude';
import type { Reference } from './references';
import { isWhole, type Binding, type Request } from './requests';
import type { SeamOptions } from './rewrite';

export type Names = ReturnType<typeof makeNames>;

/** The names the rewritten file has for its look-ups, none of which the file has itself. */
export function makeNames(code: string) {
  let mark = '$';
  while (code.includes(mark)) mark = mark === '$' ? 'ˢ' : `${mark}ˢ`;
  const links = new Map<Request, string>();
  const seam = `${mark}seam`;
  const elements = `${mark}x`;
  const ownLookUp = ({ local }: Binding) => `${local}${mark}`;
  let told = 0;
  const link = (request: Request) => {
    if (!links.has(request)) links.set(request, `${mark}s${links.size}`);
    return links.get(request)!;
  };
  return {
    seam,
    link,
    element: ({ local }: Binding) => `${elements}${local}.${local}`,
    opening({ form, runtime, own }: SeamOptions, isStandard: boolean): string {
      const from = JSON.stringify(runtime);
      if (form === 'commonjs')
        return `const ${seam} = require(${from}).open(require, module, __filename);${isStandard ? ' export {};' : ''}`;
      return `import { openStandard as ${mark}open } from ${from}; const ${seam} = ${mark}open(import.meta${own === undefined ? '' : `, ${JSON.stringify(own)}`});`;
    },
    /** The look-up of one name, and what JSX and written-down types need of it. */
    declare(binding: Binding, link: string, references: readonly Reference[]): string[] {
      const own = ownLookUp(binding);
      const lines = [`const ${own} = () => ${printLookUp(link, binding.name)};`];
      if (references.some(({ use }) => use === 'element'))
        lines.push(`const ${elements}${binding.local} = { get ${binding.local}() { return ${own}(); } };`);
      if (references.some(({ use }) => use === 'typed'))
        lines.push(`const ${binding.local} = ${link}.taken(${JSON.stringify(binding.name)}, ${own}, 1);`);
      return lines;
    },
    lookUp({ atLoad, member }: Reference, request: Request, binding: Binding, line: () => number): string {
      if (!atLoad) return `${ownLookUp(binding)}()`;
      const name = isWhole(binding) ? (member ?? '*') : binding.name;
      return `${link(request)}.taken(${JSON.stringify(name)}, ${ownLookUp(binding)}, ${line()})`;
    },
    /** Hands an export of another module on under a name of this one. */
    tell(exported: string, form: Form, request: Request, name: string): string {
      const value = printLookUp(link(request), name);
      const args = `${JSON.stringify(exported)}, ${link(request)}, ${JSON.stringify(name)}`;
      if (form === 'commonjs') return `${seam}.tell(${args}, () => ${value});`;
      const own = `${mark}e${told++}`;
      return `let ${own}; export { ${own} as ${/^[\w$]+$/.test(exported) ? exported : JSON.stringify(exported)} }; ${seam}.tell(${args}, () => { ${own} = ${value}; });`;
    },
  };
}

function printLookUp(link: string, name: string): string {
  if (name === '*') return `${link}.whole()`;
  if (name === 'module.exports') return `${link}()`;
  if (name === 'default') return `${link}.byDefault()`;
  return /^[\w$]+$/.test(name) ? `${link}().${name}` : `${link}()[${JSON.stringify(name)}]`;
}
