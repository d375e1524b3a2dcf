import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import type { Leaf, Unit, Use } from './facts';
import {
  isFile,
  markOf,
  marksReached,
  reachedFrom,
  type Edge,
  type Graph,
  type Mark,
  type Problem,
  type SurveyNode,
} from './graph';
import type { Found, Linker } from './link';
import { packageOf } from './project';
import { isFramework, packageKind } from './read/leaves';
import { isOpen, printAddress, printText, Requests } from './requests';
import { Templates } from './templates';

// A package that loads more code than this takes a second of each test file.
const heavy = 1_000_000;

type Making = Omit<SurveyNode, 'id' | 'edges'>;

/** Follows what a component uses, as far as it goes. */
export class Builder {
  /** By the unit, by the file that is loaded, or by parts with a NUL between them. */
  readonly #nodes = new Map<string | Unit, SurveyNode>();
  readonly #open: (() => void)[] = [];
  readonly #problems = new Map<string, Problem>();
  readonly #weights = new Map<string, number>();
  /** Calls that are requests if what is called turns out to ask the network. */
  #asking: { from: SurveyNode; leaf: Leaf; client: SurveyNode }[] = [];
  readonly #requests: Requests;
  readonly #templates: Templates;

  constructor(readonly linker: Linker) {
    this.#requests = new Requests(linker);
    this.#templates = new Templates(linker);
  }

  /** What a component leans on. What was followed for another one before is not followed again. */
  build(file: string, unit: Unit): Graph {
    const root = this.follow(file, unit);
    this.settleClients();
    const nodes = [...reachedFrom(root)];
    const files = new Set(nodes.filter(isFile).map((node) => node.file));
    return { root, nodes, problems: this.#problemsOf((one) => files.has(one.file)) };
  }

  follow(file: string, unit: Unit): SurveyNode {
    const root = this.#unit(file, unit);
    for (let next = this.#open.pop(); next; next = this.#open.pop()) next();
    return root;
  }

  /** All that was met so far. */
  get nodes(): readonly SurveyNode[] {
    return [...this.#nodes.values()];
  }

  get problems(): readonly Problem[] {
    return this.#problemsOf(() => true);
  }

  #problemsOf(isAsked: (problem: Problem) => boolean): readonly Problem[] {
    return [...this.#problems.values()].filter(isAsked).sort(byPlace);
  }

  #make(key: string | Unit, making: Making, fill?: (node: SurveyNode) => void): SurveyNode {
    const known = this.#nodes.get(key);
    if (known) return known;
    const node = { id: this.#nodes.size, edges: [], ...making };
    this.#nodes.set(key, node);
    if (fill) this.#open.push(() => fill(node));
    return node;
  }

  #unit(file: string, unit: Unit): SurveyNode {
    const known = this.#nodes.get(unit);
    if (known) return known;
    const { name, kind, line, framework } = unit;
    const making: Making = {
      ...{ kind: kind === 'load' ? 'on load' : kind, name, file: this.linker.project.nameOf(file), line },
      ...{ own: [], unit, ...(framework && { framework }) },
    };
    return this.#make(unit, making, (node) => this.#fill(node, file, unit));
  }

  #fill(node: SurveyNode, file: string, unit: Unit): void {
    const edges: (readonly [Found | undefined, Use])[] = [];
    for (const use of unit.uses) {
      // What an Angular component imports counts where its template uses it.
      if (use.how === 'read' && use.atLoad && unit.lends?.includes(use.name)) continue;
      edges.push([this.linker.find(file, use.name, use.member), use]);
    }
    edges.push(...this.#templates.usesOf(file, unit));
    for (const [found, use] of edges) {
      for (const leaf of this.#requests.askedBy(found, use)) this.#leaf(node, file, leaf);
      const to = this.#target(file, unit, found, use);
      if (to && to !== node) connect(node, to, to.kind === 'context' ? usedAsContext(use) : use);
    }
    for (const leaf of unit.leaves) this.#ownLeaf(node, file, leaf);
    connect(node, this.#load(file), { how: 'loaded', line: 1 });
  }

  #target(file: string, unit: Unit, found: Found | undefined, use: Use): SurveyNode | undefined {
    if (found === undefined) return this.#unknown(file, unit, use);
    switch (found.kind) {
      case 'unit':
        return this.#unit(found.file, found.unit);
      case 'file':
        return this.#load(found.file);
      // The load of the file reports it.
      case 'nowhere':
        return undefined;
      case 'package':
        return this.#package(unit, found, use);
    }
  }

  #package(unit: Unit, found: Extract<Found, { kind: 'package' }>, use: Use): SurveyNode | undefined {
    const { specifier, name, entry } = found;
    const isAsked = unit.leaves.some(({ what, client }) => what === use.name || client === use.name);
    if (isFramework(specifier) || isAsked) return undefined;
    const kind = packageKind(specifier);
    const bytes = entry === undefined ? undefined : this.#weigh(entry);
    const own: Mark[] = [];
    if (kind) own.push(kind === 'network' ? kind : 'global state');
    if (bytes !== undefined && bytes > heavy) own.push('heavy');
    const shown = name === 'default' ? use.name : name === '*' ? (use.member ?? use.name) : name;
    const making = { kind: 'package' as const, name: shown, own, package: packageOf(specifier) };
    return this.#make(`${specifier}\0${shown}`, {
      ...{ ...making, ...(kind && { note: kind }) },
      ...(bytes !== undefined && { bytes, file: entry! }),
    });
  }

  #weigh(entry: string): number {
    let bytes = this.#weights.get(entry);
    if (bytes === undefined) this.#weights.set(entry, (bytes = weigh(entry)));
    return bytes;
  }

  // A name that the template has from elsewhere, or a key that is a text.
  #unknown(file: string, { framework }: Unit, use: Use): SurveyNode | undefined {
    if (use.name.startsWith("'"))
      return this.#make(`key\0${use.name}`, { kind: 'token', name: use.name, own: [] });
    if (framework !== 'vue' || use.how !== 'rendered') return undefined;
    if (/^Router(View|Link)$/.test(use.name))
      return this.#make(`vue-router\0${use.name}`, {
        ...{ kind: 'package', name: use.name, own: ['global state'], package: 'vue-router', note: 'router' },
      });
    return this.#make(`unknown\0${use.name}`, {
      ...{ kind: 'unknown', name: use.name, own: [], note: 'not imported here' },
      ...{ file: this.linker.project.nameOf(file), line: use.line },
    });
  }

  #ownLeaf(node: SurveyNode, file: string, leaf: Leaf): void {
    // A caller that names it reports it.
    if (leaf.kind === 'request' && leaf.address && node.kind !== 'component' && isOpen(leaf.address)) return;
    if (leaf.client === undefined) {
      this.#leaf(node, file, leaf);
      return;
    }
    const found = this.linker.find(file, leaf.client);
    if (found?.kind === 'package' && packageKind(found.specifier) === 'network') this.#leaf(node, file, leaf);
    if (found?.kind === 'unit') {
      const client = this.#unit(found.file, found.unit);
      this.#asking.push({ from: node, leaf: { ...leaf }, client });
    }
  }

  #leaf(node: SurveyNode, file: string, leaf: Leaf): void {
    const { address } = leaf;
    const print = isDocument(leaf) ? printText : printAddress;
    const name = printLeaf(leaf, address && print(this.linker, file, address));
    if (name === undefined) return;
    const own = markOf(leaf);
    const key = `leaf\0${node.id}\0${leaf.kind}\0${name}`;
    const where = { file: this.linker.project.nameOf(file), line: leaf.line };
    const making = { kind: leaf.kind, name, own, leaf, ...where };
    connect(node, this.#make(key, making), { how: 'meets', line: leaf.line });
  }

  /** What happens when a file is loaded, and what it loads in turn. */
  #load(file: string): SurveyNode {
    const known = this.#nodes.get(file);
    if (known) return known;
    const name = this.linker.project.nameOf(file);
    return this.#make(file, { kind: 'on load', name, file: name, own: [] }, (node) => {
      const { imports, units, unread } = this.linker.project.facts(file);
      if (unread) this.#problem(file, unread.line, `not read: ${unread.why}`);
      for (const { specifier, isLazy, line } of imports) {
        const target = this.linker.project.resolve(file, specifier);
        if (target.kind === 'nowhere') this.#problem(file, line, `"${specifier}" leads nowhere`);
        if (target.kind === 'package' && target.why !== undefined)
          this.#problem(file, line, `"${specifier}" leads nowhere: ${target.why}`);
        if (target.kind === 'file' && !isLazy)
          connect(node, this.#load(target.file), { how: 'loaded', line });
      }
      for (const unit of units) {
        if (unit.kind === 'load') for (const leaf of unit.leaves) this.#leaf(node, file, leaf);
        for (const use of unit.uses) {
          if (!use.atLoad || (use.how !== 'called' && use.how !== 'made')) continue;
          const found = this.linker.find(file, use.name, use.member);
          if (found?.kind !== 'unit') continue;
          if (use.how === 'called') connect(node, this.#unit(found.file, found.unit), use);
          // What is made runs its constructor, and none of its methods.
          else
            for (const leaf of found.unit.leaves)
              if (leaf.within === undefined || leaf.within === 'constructor')
                this.#leaf(node, found.file, leaf);
        }
      }
    });
  }

  #problem(file: string, line: number, why: string): void {
    const name = this.linker.project.nameOf(file);
    const key = `${name}\0${why}`;
    if (!this.#problems.has(key)) this.#problems.set(key, { file: name, line, why });
  }

  /** Adds the calls of clients that turned out to ask the network. */
  settleClients(): void {
    if (this.#asking.length === 0) return;
    const reached = marksReached([...this.#nodes.values()]);
    for (const { from, leaf, client } of this.#asking)
      if (reached.get(client)?.has('network')) this.#leaf(from, this.#fileOf(from), leaf);
    this.#asking = [];
  }

  #fileOf(node: SurveyNode): string {
    return resolve(this.linker.project.from, node.file ?? '');
  }
}

function connect(
  from: SurveyNode,
  to: SurveyNode,
  use: Pick<Edge, 'how' | 'line' | 'isLazy' | 'hasRef'>,
): void {
  const known = from.edges.findIndex((edge) => edge.to === to);
  const { how, line, isLazy, hasRef } = use;
  const edge: Edge = { to, how, line, ...(isLazy && { isLazy }), ...(hasRef && { hasRef }) };
  if (known < 0) from.edges.push(edge);
  // To be read says least of a use.
  else if (from.edges[known]!.how === 'read') from.edges[known] = { ...edge, line: from.edges[known]!.line };
}

const byPlace = (a: Problem, b: Problem) => a.file.localeCompare(b.file) || a.line - b.line;

/** `<SessionContext.Provider>`, and `<SessionContext value>` since React 19. */
const usedAsContext = (use: Use): Use =>
  use.how === 'rendered' && use.member !== 'Consumer' ? { ...use, how: 'provided' } : use;

const isDocument = ({ what }: Pick<Leaf, 'what'>) => /^(gql|graphql)$/.test(what);

/** How a leaf is called; undefined for a document of GraphQL that holds no operation. */
function printLeaf({ kind, what, method }: Leaf, address: string | undefined): string | undefined {
  if (isDocument({ what })) {
    const [, type, name] = /\b(query|mutation|subscription)\s+(\w+)/.exec(address ?? '') ?? [];
    return type && `${type.toUpperCase()} ${name}`;
  }
  if (kind === 'request' && method) return `${method} ${address || 'what is not written out'}`;
  return address ? `${what} ${address}` : what;
}

/** How much code an entry of a package loads from its own files. */
function weigh(entry: string): number {
  const seen = new Set<string>();
  const open = [entry];
  let bytes = 0;
  for (let file = open.pop(); file !== undefined && seen.size < 3000; file = open.pop()) {
    if (seen.has(file)) continue;
    seen.add(file);
    let text: string;
    try {
      text = readFileSync(file, 'utf8');
    } catch {
      continue;
    }
    bytes += text.length;
    for (const [, specifier] of text.matchAll(/(?:from|import|require\()\s*['"](\.[^'"]+)['"]/g)) {
      const path = new URL(specifier!, `file://${file}`).pathname;
      open.push(path);
    }
  }
  return bytes;
}
