import { isAddress } from '../address';
import MagicString from 'magic-string';
import { makeNames } from './names';
import { parse, type Parsed } from './parse';
import { printLink, printNamed, type Form } from './prelude';
import { findReferences, type Load, type Reference } from './references';
import { findRequests, type Binding, type Request } from './requests';
import { isNode, nameOf, nodesIn, type Node } from '../../syntax/syntax';

/*
 * One source-to-source rewriter: what a file imports is looked up each time it is used, so that a
 * test can have another answer looked up. No line moves: what is added stands on the line of the
 * first statement, and what is taken out leaves its line breaks.
 */

export interface SeamOptions {
  /** What the file becomes in the end: a CommonJS module, or a standard one. */
  readonly form: Form;
  /** Where the look-ups come from, as a module specifier. */
  readonly runtime: string;
  /** What identifies the file itself, where its address does not say it. */
  readonly own?: string;
  /** The line of the user's own file, where this one was made of it. */
  readonly lineOf?: ((line: number, column: number) => number) | undefined;
  /** True for a module that is imported as ever. */
  readonly isKept?: (specifier: string) => boolean;
  /** The functions a module exports, where the code cannot find out when it runs. */
  readonly functionsOf?: (specifier: string) => readonly string[] | undefined;
  /** What identifies a module, where it is known before the code runs. */
  readonly idOf?: (specifier: string) => string | undefined;
  /** The names `export * from` hands on, where they can be known; else it stays as it is. */
  readonly namesOf?: (specifier: string) => readonly string[] | undefined;
}

export interface Rewritten {
  readonly code: string;
  /** A map back to the file as it was written. @see https://tc39.es/ecma426/ */
  makeMap(): { toString(): string; readonly mappings: string };
}

// Compilers recognize the names they import from the frameworks, so those imports stay as they are. Nobody
// swaps them.
const kept =
  /^(react|react-dom|vue|@angular\/(core|compiler)|zone\.js|simulacra|@jest|@babel\/runtime|@swc\/helpers|tslib)(\/|$)/;

// Excludes the added code from coverage.
export const ignored = '/* istanbul ignore next */ ';

/**
 * Rewrites one file.
 *
 * @param code JavaScript or TypeScript, with or without JSX
 * @param file its name, whose extension says how to read it
 * @returns undefined where there is nothing to rewrite, and for what cannot be parsed: whoever comes
 * next says what is wrong with it
 */
export function rewrite(code: string, file: string, options: SeamOptions): Rewritten | undefined {
  return rewriteParsed(parse(code, file), options);
}

/** The same for a file that somebody has looked at before. */
export const rewriteParsed = (parsed: Parsed, options: SeamOptions): Rewritten | undefined =>
  parsed && new Rewriting(parsed.code, parsed.file, parsed.program, options).write();

class Rewriting {
  readonly #text: MagicString;
  readonly #requests: readonly Request[];
  readonly #references = new Map<string, Reference[]>();
  readonly #loads: readonly Load[];
  readonly #isTyped: boolean;
  readonly #names: ReturnType<typeof makeNames>;
  readonly #isStandard: boolean;

  constructor(
    readonly code: string,
    file: string,
    readonly program: Node,
    readonly options: SeamOptions,
  ) {
    this.#text = new MagicString(code, { filename: file });
    this.#isTyped = /\.[cm]?tsx?$/.test(file);
    this.#isStandard = nodesIn(program['body']).some(({ type }) => /^(Import|Export)/.test(type));
    const isRequireKept = options.form === 'module';
    const isKept = (specifier: string) => kept.test(specifier) || options.isKept?.(specifier) === true;
    this.#requests = findRequests(program, isKept).filter(
      ({ kind }) => !(kind === 'required' && isRequireKept),
    );
    const wanted = new Set(this.#requests.flatMap(({ bindings }) => bindings.map(({ local }) => local)));
    const found = findReferences(program, wanted, !this.#isStandard);
    for (const reference of found.references) {
      const known = this.#references.get(reference.name);
      if (known) known.push(reference);
      else this.#references.set(reference.name, [reference]);
    }
    this.#loads = found.loads.filter(
      ({ kind, specifier }) =>
        (kind !== 'require' && isAddress(specifier)) ||
        (!isKept(specifier) && !(kind === 'require' && isRequireKept)),
    );
    this.#names = makeNames(code);
  }

  write(): Rewritten | undefined {
    const links = this.#requests.flatMap((request) => this.#rewriteRequest(request));
    const loads = this.#loads.filter(
      ({ node }) => !this.#requests.some(({ statement }) => holds(statement, node)),
    );
    if (links.length === 0 && loads.length === 0) return undefined;
    for (const load of loads) this.#rewriteLoad(load);
    const told = this.#rewriteExports();
    this.#insert(
      [this.#names.opening(this.options, this.#isStandard), ...links, ...told].join(` ${ignored}`),
    );
    const text = this.#text;
    // In CommonJS the end of loading is known without a call.
    const last = nodesIn(this.program['body']).at(-1);
    if (this.options.form === 'module' && last)
      text.appendRight(last.end, `;${ignored}${this.#names.seam}.end();`);
    return {
      code: text.toString(),
      makeMap: () => text.generateMap({ hires: 'boundary', includeContent: true }),
    };
  }

  /** What the prelude says of a request, if anything of it is looked up. */
  #rewriteRequest(request: Request): string[] {
    const { specifier, bindings, statement, kind } = request;
    const used = bindings.filter((binding) => this.#of(binding).length > 0);
    const isElided =
      this.#isTyped && kind === 'import' && used.length === 0 && nodesIn(statement['specifiers']).length > 0;
    // Imports that only types need are removed by the compiler.
    if (isElided) return [];
    const star = kind === 'star' ? this.options.namesOf?.(specifier) : undefined;
    if (kind === 'star' && this.options.form === 'module' && !star) return [];
    const looked = this.#isTyped ? used : bindings;
    this.#takeOut(request, looked);
    for (const binding of used) this.#rewriteReferences(binding, request);
    return printLink(this.#names, this.options, {
      request,
      bindings: looked.map((binding) => ({ binding, references: this.#of(binding) })),
      star,
    });
  }

  #of({ local }: Binding): readonly Reference[] {
    return this.#references.get(local) ?? [];
  }

  // Names that only types need stay; the compiler removes them.
  #takeOut({ specifier, statement, kind, bindings }: Request, looked: readonly Binding[]): void {
    const left = kind === 'import' ? bindings.filter((binding) => !looked.includes(binding)) : [];
    const types = nodesIn(statement['specifiers']).filter(
      (one) => one['importKind'] === 'type' || left.some(({ local }) => local === nameOf(one['local'])),
    );
    const text = types.map((one) => this.code.slice(one.start, one.end)).join(', ');
    const rest =
      text && this.#isTyped && types.every(({ type }) => type === 'ImportSpecifier')
        ? `import { ${text} } from ${JSON.stringify(specifier)};`
        : '';
    this.#blank(statement, rest);
  }

  #blank({ start, end }: Node, text: string): void {
    const breaks = this.code.slice(start, end).match(/\n/g)?.length ?? 0;
    this.#text.overwrite(start, end, `${text}${'\n'.repeat(breaks)}` || ' ');
  }

  #rewriteReferences(binding: Binding, request: Request): void {
    for (const reference of this.#of(binding)) {
      const { start, end, use, decorator } = reference;
      if (use === 'typed' || use === 'told') continue;
      const looked = this.#names.lookUp(reference, request, binding, () => this.#lineOf(start));
      switch (use) {
        case 'element':
          this.#text.overwrite(start, end, this.#names.element(binding));
          break;
        case 'short':
          this.#text.overwrite(start, end, `${binding.local}: ${looked}`);
          break;
        case 'made':
          this.#text.overwrite(start, end, `(${looked})`);
          break;
        default:
          this.#text.overwrite(start, end, looked);
      }
      if (decorator) this.#text.appendLeft(decorator.start, '(').appendRight(decorator.end, ')');
    }
  }

  #lineOf(at: number): number {
    let line = 1;
    let start = 0;
    for (let end = this.code.indexOf('\n'); end >= 0 && end < at; end = this.code.indexOf('\n', start)) {
      line++;
      start = end + 1;
    }
    return this.options.lineOf?.(line, at - start) ?? line;
  }

  #rewriteLoad({ specifier, node, kind }: Load): void {
    const args = printNamed(specifier, this.options, kind === 'thunk');
    // A thunk is a function already. Other values become one, which is called only for the original.
    const way = { thunk: ['thunk', ''], import: ['load', '() => '], require: ['require', '() => '] } as const;
    const [method, arrow] = way[kind];
    this.#text
      .appendRight(node.start, `${this.#names.seam}.${method}(${args}, ${arrow}`)
      .appendLeft(node.end, ')');
  }

  /** `export { name }` of a name that is looked up: the exported name must be looked up as well. */
  #rewriteExports(): string[] {
    const bindings = new Map(
      this.#requests.flatMap((one) => one.bindings.map((binding) => [binding.local, binding])),
    );
    return nodesIn(this.program['body']).flatMap((statement) => {
      if (statement.type !== 'ExportNamedDeclaration' || isNode(statement['source'])) return [];
      // Types are removed by the compiler.
      if (statement['exportKind'] === 'type') return [];
      const specifiers = nodesIn(statement['specifiers']);
      const told = specifiers.filter(
        (one) => one['exportKind'] !== 'type' && bindings.has(nameOf(one['local'])),
      );
      if (told.length === 0) return [];
      const left = specifiers.filter((one) => !told.includes(one));
      this.#blank(
        statement,
        left.length > 0
          ? `export { ${left.map((one) => this.code.slice(one.start, one.end)).join(', ')} };`
          : '',
      );
      return told.map((one) => {
        const binding = bindings.get(nameOf(one['local']))!;
        return this.#names.tell(nameOf(one['exported']), this.options.form, binding.request, binding.name);
      });
    });
  }

  // Before the first statement, below the comments that configure the file.
  #insert(prelude: string): void {
    const [first] = nodesIn(this.program['body']).filter((statement) => statement['directive'] === undefined);
    const directive = nodesIn(this.program['body']).some((statement) => statement['directive'] !== undefined);
    const at = first ? startOf(first) : this.code.length;
    this.#text.appendLeft(at, `${directive ? ';' : ''}${ignored}${prelude} `);
  }
}

const holds = (outer: Node, inner: Node) => outer.start <= inner.start && inner.end <= outer.end;

// A decorator may precede `export` and belongs to the class after it.
function startOf(statement: Node): number {
  const declaration = statement['declaration'];
  const decorators = isNode(declaration)
    ? nodesIn(declaration['decorators'])
    : nodesIn(statement['decorators']);
  return Math.min(statement.start, ...decorators.map(({ start }) => start));
}
