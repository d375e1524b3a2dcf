import { Parser } from 'htmlparser2';
import { isNode, nameOf, nodesIn, textOf, type Node } from '../../syntax/syntax';
import type { OpenUnit } from './unit';
import { interpolated, namesRead, readMarkup } from './markup';
import { valueOf } from './shapes';

/** A block of a single-file component. */
export interface Block {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly start: number;
  readonly end: number;
}

/** The blocks of a single-file component: where each stands, and what is said of it. */
export function readBlocks(text: string): readonly Block[] {
  const blocks: Block[] = [];
  let depth = 0;
  let open: Omit<Block, 'end'> | undefined;
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (depth++ === 0) open = { name, attributes, start: parser.endIndex + 1 };
      },
      onclosetag() {
        if (--depth === 0 && open) blocks.push({ ...open, end: parser.startIndex });
      },
    },
    { lowerCaseTags: false, recognizeSelfClosing: true, decodeEntities: false },
  );
  parser.end(text);
  return blocks;
}

const camel = (name: string) => name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
const pascal = (name: string) => camel(name).replace(/^./, (letter) => letter.toUpperCase());
const html =
  /^(a|abbr|address|area|article|aside|audio|b|base|bdi|bdo|blockquote|body|br|button|canvas|caption|cite|code|col|colgroup|data|datalist|dd|del|details|dfn|dialog|div|dl|dt|em|embed|fieldset|figcaption|figure|footer|form|h[1-6]|head|header|hgroup|hr|html|i|iframe|img|input|ins|kbd|label|legend|li|link|main|map|mark|math|menu|meta|meter|nav|noscript|object|ol|optgroup|option|output|p|picture|pre|progress|q|rp|rt|ruby|s|samp|script|search|section|select|slot|small|source|span|strong|style|sub|summary|sup|svg|table|tbody|td|template|textarea|tfoot|th|thead|time|title|tr|track|u|ul|var|video|wbr|path|circle|rect|line|polyline|polygon|g|defs|use|symbol|text|tspan|ellipse|clipPath|mask|pattern|linearGradient|radialGradient|stop|filter|foreignObject|fe[A-Z]\w+|animate\w*)$/;
const builtIn = /^(component|transition|transition-group|keep-alive|suspense|teleport)$/i;

/** Reads what a template of Vue renders, and which names of the script it reads. */
export function readVueTemplate(
  unit: OpenUnit,
  text: string,
  known: ReadonlySet<string>,
  lineAt: (offset: number) => number,
): void {
  const { tags, texts } = readMarkup(text);
  for (const { name, attributes, start } of tags) {
    const line = lineAt(start);
    if (name === 'slot') unit.add('slots', attributes['name'] ?? 'default');
    const isElement = html.test(name) || builtIn.test(name);
    const local = [name, camel(name), pascal(name)].find((one) => known.has(one.split('.')[0]!));
    const hasRef = 'ref' in attributes || ':ref' in attributes ? { hasRef: true as const } : {};
    if (local) unit.use(local.split('.')[0]!, 'rendered', line, hasRef);
    else if (!isElement && /[-A-Z]/.test(name)) unit.use(pascal(name), 'rendered', line, hasRef);
    for (const [attribute, value] of Object.entries(attributes)) {
      const [, directive] = /^v-([\w-]+)/.exec(attribute) ?? [];
      const own = directive && pascal(`v-${directive}`).replace(/^V/, 'v');
      if (own && known.has(own)) unit.use(own, 'read', line);
      if (/^(v-|:|@|#)/.test(attribute)) readExpression(unit, value, known, line);
    }
  }
  for (const { text: written, start } of texts)
    for (const inside of interpolated(written)) readExpression(unit, inside, known, lineAt(start));
}

function readExpression(unit: OpenUnit, expression: string, known: ReadonlySet<string>, line: number): void {
  for (const name of namesRead(expression)) {
    if (known.has(name)) unit.use(name, 'read', line);
    if (name === '$router' || name === '$route') unit.leaves.push({ kind: 'navigation', what: name, line });
    if (name === '$store') unit.leaves.push({ kind: 'global', what: name, line });
  }
}

const ofLists = /^(length|map|filter|find|some|every|forEach|flatMap|includes|join|at|push|slice)$/;

/**
 * `title` of `this.$slots.title` and `slots.title()`, as render functions name what is put inside. All of it at
 * once is what has no name.
 */
export function slotIn({ object, property, computed }: Node): string | undefined {
  const name = computed ? textOf(property) : nameOf(property);
  if (name === undefined || !isNode(object)) return undefined;
  if (object.type === 'ThisExpression') return name === '$slots' ? 'default' : undefined;
  const holder =
    object.type === 'MemberExpression'
      ? `${nameOf(object['object'])}.${nameOf(object['property'])}`
      : object.type === 'Identifier'
        ? nameOf(object)
        : '';
  // Of `this.$slots` the first name is none.
  const isSlots = /^(\$?slots|\.\$slots|(ctx|context)\.slots)$/.test(holder);
  return isSlots && !ofLists.test(name) ? name : undefined;
}

/** Reads what the compiler's own macros declare: props, events, models, slots. */
export function readMacro(unit: OpenUnit, call: Node): void {
  const [first] = nodesIn(call['arguments']);
  const typed = isNode(call['typeArguments']) ? nodesIn(call['typeArguments']['params'])[0] : undefined;
  const names = namesDeclared(typed ?? first);
  switch (nameOf(call['callee'])) {
    case 'withDefaults':
      if (first?.type === 'CallExpression') readMacro(unit, first);
      return;
    case 'defineProps':
      return names.forEach((name) => unit.add('inputs', name));
    case 'defineEmits':
      return names.forEach((name) => unit.add('outputs', name));
    case 'defineSlots':
      return names.forEach((name) => unit.add('slots', name));
    case 'defineModel':
      unit.add('inputs', textOf(first) ?? 'modelValue');
  }
}

/** Reads the props, the events and what is injected, of a component that is written as options. */
export function readOptions({ unit, lineOf }: WithLines, node: Node): void {
  const [first] = nodesIn(node['arguments']);
  const options = node.type === 'ObjectExpression' ? node : first;
  for (const { key, value } of nodesIn(options?.['properties'])) {
    if (nameOf(key) === 'props') for (const name of namesDeclared(value as Node)) unit.add('inputs', name);
    if (nameOf(key) === 'emits') for (const name of namesDeclared(value as Node)) unit.add('outputs', name);
    if (nameOf(key) === 'inject') readInjected({ unit, lineOf }, value as Node);
  }
}

interface WithLines {
  readonly unit: OpenUnit;
  lineOf(node: Node): number;
}

/** `inject: ['session']`, `inject: { parent: { from: PanelKey, default: null } }`. */
function readInjected({ unit, lineOf }: WithLines, node: Node): void {
  const use = (name: string, at: Node) => unit.use(name, 'injected', lineOf(at));
  if (node.type !== 'ObjectExpression') {
    for (const one of nodesIn(node['elements']))
      use(one.type === 'Identifier' ? nameOf(one) : `'${textOf(one)}'`, one);
    return;
  }
  for (const one of nodesIn(node['properties'])) {
    const value = one['value'] as Node;
    const from = value.type === 'ObjectExpression' ? valueOf(value, 'from') : value;
    const said = textOf(from);
    if (from?.type === 'Identifier') use(nameOf(from), one);
    else use(`'${said ?? nameOf(one['key'])}'`, one);
  }
}

function namesDeclared(node: Node | undefined): string[] {
  if (node?.type === 'TSTypeLiteral')
    return nodesIn(node['members']).flatMap((member) => nameOf(member['key']) || eventOf(member) || []);
  if (node?.type === 'ObjectExpression')
    return nodesIn(node['properties']).flatMap(({ key }) => nameOf(key) || []);
  return nodesIn(node?.['elements']).flatMap((one) => textOf(one) ?? []);
}

/** `open` of `(event: 'open', id: string): void`. */
function eventOf(member: Node): string {
  const [param] = nodesIn(member['params']);
  const type = isNode(param?.['typeAnnotation']) ? param['typeAnnotation']['typeAnnotation'] : undefined;
  return isNode(type) ? (textOf(type['literal']) ?? '') : '';
}
