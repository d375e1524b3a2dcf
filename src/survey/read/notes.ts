import { isNode, nameOf, nodesIn, type Node } from '../../syntax/syntax';
import type { Scope } from '../../syntax/scope';
import { Walk, type Place } from '../../syntax/walk';
import type { Export, Framework, How, Import, Leaf, Parts, Use } from '../facts';
import { isArgument, looksLikeAddress, readText, type Meaning } from './addresses';
import { readModule, type ModuleRecord } from './module';
import { originOf, returnedBy, valueOf } from './shapes';
import { OpenUnit, type Imported } from './unit';

export interface Script {
  readonly code: string;
  readonly program: Node;
  readonly module: ModuleRecord;
  /** The name that an export without one goes by. */
  readonly stem: string;
  readonly framework: Framework | undefined;
  /** True where all of it runs for each component: `<script setup>` of Vue. */
  readonly isSetup: boolean;
  /** The line that each place of the code is in. */
  readonly lineAt: (offset: number) => number;
}

/** Notes what is met on a walk through a file, each for the declaration that it stands in. */
export abstract class Notes extends Walk {
  readonly imports: Import[];
  readonly exports: Export[];
  readonly units: OpenUnit[] = [];
  readonly imported: ReadonlyMap<string, Imported>;
  readonly framework: Framework;
  /** What the file does when it is loaded. */
  readonly load = new OpenUnit('(load)', 1);
  unit = this.load;
  /** What the members of the class around are: `http` of `http = inject(HttpClient)`. */
  protected readonly members = new Map<string, string>();
  /** What the fields of the class around begin as: `'/api/hives'` of `url = '/api/hives'`. */
  protected readonly fields = new Map<string, Node>();
  /** What names stand for inside of functions: where they are declared, and what they begin as. */
  readonly #constants = new Map<Scope, Map<string, Meaning>>();
  /** Names that come out of a call of something: `const api = useApi()`. */
  readonly #origins = new Map<Scope, Map<string, string>>();
  /** The functions around the place that is read, with the names of their parameters. */
  readonly #parameters: string[][] = [];
  /** The member of an object or class that is read. */
  #member: string | undefined;

  constructor(readonly script: Script) {
    super(false, /\bvar\b/.test(script.code));
    const { imports, exports, imported } = readModule(script.module, script.lineAt, script.stem);
    this.imports = imports;
    this.exports = exports;
    this.imported = imported;
    this.framework = script.framework ?? frameworkOf(imports);
    this.load.kind = 'load';
  }

  readonly lineOf = (node: Node): number => this.script.lineAt(node.start);

  protected note(node: Node, how: How, place: Place, more: Partial<Use> = {}): void {
    const name = nameOf(node);
    if (place.scope.whereIs(name) !== this.module || name === this.unit.name) return;
    const atLoad = this.isLoading(place) ? { atLoad: true as const } : {};
    this.unit.use(name, how, this.lineOf(node), { ...more, ...atLoad, ...this.around });
  }

  protected get around(): { within?: string } {
    return this.#member === undefined ? {} : { within: this.#member };
  }

  protected leaf(leaf: Omit<Leaf, 'line'> | undefined, node: Node, place: Place): void {
    if (!leaf) return;
    const isLoading = this.isLoading(place);
    const atLoad = isLoading ? { atLoad: true as const } : {};
    (isLoading ? this.load : this.unit).leaves.push({
      ...leaf,
      line: this.lineOf(node),
      ...atLoad,
      ...this.around,
    });
  }

  protected isLoading = (place: Place): boolean => place.depth === 0 && !this.script.isSetup;

  protected inMember(node: Node, read: () => void): void {
    const before = this.#member;
    if (before === undefined && /Function|Arrow/.test((node['value'] as Node | null)?.type ?? ''))
      this.#member = nameOf(node['key']);
    read();
    this.#member = before;
  }

  protected readFunction(node: Node, place: Place): void {
    this.#parameters.push(
      nodesIn(node['params']).map((param) => {
        const plain = param.type === 'AssignmentPattern' ? (param['left'] as Node) : param;
        return plain.type === 'Identifier' ? nameOf(plain) : '';
      }),
    );
    this.visitFunction(node, place);
    this.#parameters.pop();
  }

  protected readVariable(node: Node, place: Place): void {
    const id = node['id'] as Node;
    const init = node['init'];
    if (isNode(init)) {
      if (id.type === 'Identifier')
        tableOf(this.#constants, place.scope).set(nameOf(id), { expression: init });
      const origin = originOf(init);
      const owner = origin && place.scope.whereIs(origin) === this.module ? origin : undefined;
      if (owner && id.type === 'Identifier') tableOf(this.#origins, place.scope).set(nameOf(id), owner);
    }
    this.visitPattern(id, place);
    this.visit(init, place);
  }

  protected meaningOf(name: string, place: Place): Meaning {
    if (name.startsWith('this.')) {
      const expression = this.fields.get(name.slice('this.'.length));
      return expression && { expression };
    }
    const scope = place.scope.whereIs(name);
    if (!scope) return undefined;
    const known = this.#constants.get(scope)?.get(name);
    if (known) return known;
    if (scope === this.module) return { constant: name };
    const argument = this.#parameters.map((names) => names.indexOf(name)).find((index) => index >= 0);
    return argument === undefined ? undefined : { argument };
  }

  /** The name of this file that an object comes from. */
  protected ownerOf(object: Node, place: Place): string | undefined {
    if (object.type === 'MemberExpression' && (object['object'] as Node).type === 'ThisExpression')
      return this.members.get(nameOf(object['property']));
    if (object.type !== 'Identifier') return undefined;
    const name = nameOf(object);
    const scope = place.scope.whereIs(name);
    const origin = scope && this.#origins.get(scope)?.get(name);
    return origin ?? (scope === this.module ? name : undefined);
  }

  /** Reads what an argument names as an address: a text, an object with a `url`, a function that returns one. */
  protected addressOf(argument: Node | undefined, place: Place): Parts | undefined {
    if (!argument) return undefined;
    if (/Function/.test(argument.type)) return this.addressOf(returnedBy(argument), place);
    if (argument.type === 'ConditionalExpression')
      return (
        this.addressOf(argument['consequent'] as Node, place) ??
        this.addressOf(argument['alternate'] as Node, place)
      );
    if (argument.type === 'ObjectExpression') {
      const url = valueOf(argument, 'url');
      return url && this.addressOf(url, place);
    }
    const parts = readText(argument, (name) => this.meaningOf(name, place));
    return parts.some((part) => typeof part === 'string' || !('unknown' in part) || 'argument' in part)
      ? parts
      : undefined;
  }

  protected addressesIn(args: readonly Node[], place: Place): Partial<Use> {
    const addresses = args.slice(0, 3).map((one) => {
      const parts = /^(Literal|Template|Binary|Identifier|Member)/.test(one.type)
        ? this.addressOf(one, place)
        : undefined;
      return parts && (looksLikeAddress(parts) || parts.some(isArgument)) ? parts : null;
    });
    return addresses.some(Boolean) ? { addresses } : {};
  }

  protected textOf(node: unknown): string {
    if (!isNode(node)) return '';
    const text = this.script.code.slice(node.start, node.end).replace(/\s+/g, ' ');
    return text.length > 40 ? `${text.slice(0, 39)}…` : text;
  }
}

function frameworkOf(imports: readonly Import[]): Framework {
  const names = imports.map(({ specifier }) => specifier.split('/', 1)[0]);
  if (names.includes('@angular')) return 'angular';
  return names.includes('vue') && !names.includes('react') ? 'vue' : 'react';
}

function tableOf<T>(tables: Map<Scope, Map<string, T>>, scope: Scope): Map<string, T> {
  const table = tables.get(scope) ?? new Map<string, T>();
  tables.set(scope, table);
  return table;
}
