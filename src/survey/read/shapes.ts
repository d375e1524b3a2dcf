import { isNode, nameOf, nodesIn, type Node } from '../../syntax/syntax';

/** `useApi` of `useApi()`, `axios` of `await axios.create()`. */
export function originOf(node: Node): string | undefined {
  if (node.type === 'AwaitExpression')
    return isNode(node['argument']) ? originOf(node['argument']) : undefined;
  if (node.type === 'CallExpression' || node.type === 'NewExpression') {
    const callee = node['callee'] as Node;
    const [first] = nodesIn(node['arguments']);
    if (/^(inject|useContext)$/.test(nameOf(callee))) return nameOf(first);
    return originOf(callee);
  }
  if (node.type === 'MemberExpression') return originOf(node['object'] as Node);
  return node.type === 'Identifier' ? nameOf(node) : undefined;
}

/** The value of a property of an object that is written out. */
export function valueOf(object: unknown, name: string): Node | undefined {
  if (!isNode(object) || object.type !== 'ObjectExpression') return undefined;
  const found = nodesIn(object['properties']).find(({ key }) => nameOf(key) === name);
  return isNode(found?.['value']) ? found['value'] : undefined;
}

/** What a function returns at its end. */
export function returnedBy(node: Node): Node | undefined {
  const body = node['body'];
  if (!isNode(body)) return undefined;
  if (body.type !== 'BlockStatement') return body;
  const last = nodesIn(body['body']).find(({ type }) => type === 'ReturnStatement');
  return isNode(last?.['argument']) ? last['argument'] : undefined;
}

/** The `import('…')` of `import('…').then(…)`. */
export function thenOf(callee: Node): Node | undefined {
  if (callee.type !== 'MemberExpression' || nameOf(callee['property']) !== 'then') return undefined;
  const object = callee['object'] as Node;
  return object.type === 'ImportExpression' ? object : undefined;
}

/** `Board` of `(loaded) => loaded.Board`, and of `({ Board }) => ({ default: Board })`. */
export function memberTaken(callback: Node | undefined): string | undefined {
  if (!callback || !/Function/.test(callback.type)) return undefined;
  const [param] = nodesIn(callback['params']);
  if (param?.type === 'ObjectPattern') return nameOf(nodesIn(param['properties'])[0]?.['key']);
  const returned = returnedBy(callback);
  const value = valueOf(returned, 'default') ?? returned;
  return value?.type === 'MemberExpression' && nameOf(value['object']) === nameOf(param)
    ? nameOf(value['property'])
    : undefined;
}
