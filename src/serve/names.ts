import type { IncomingMessage } from 'node:http';
import { loadDocument } from '../network/contract/documents';
import { isDocumentContract, type DocumentContract } from '../network/from-open-api';
import type { Network } from '../network/network';
import { addressOfOperation, isOperationKind, type Operation } from '../network/operations';
import type { Routes } from '../stage/options';
import { addressOf } from './messages';

/** True for a route that answers operations of GraphQL by their name. */
export const isOfOperation = (route: string): boolean => isOperationKind(route.split(' ')[0]!);

/** The routes as they are listed: of a contract, each that it has. */
export async function listRoutes(routes: Routes): Promise<readonly string[]> {
  const listed = await Promise.all(
    Object.entries(routes).map(async ([route, answer]) =>
      isDocumentContract(answer) ? (await loadDocument(answer.document)).routes : [route],
    ),
  );
  return [...new Set(listed.flat())].sort(byPath);
}

// By path, so that what belongs together stands together; sockets and operations after the others.
function byPath(one: string, other: string): number {
  const keyOf = (route: string) => {
    const [method = '', path = ''] = route.split(' ');
    return `${method === 'WS' ? 1 : isOfOperation(route) ? 2 : 0} ${path}`;
  };
  return keyOf(one) < keyOf(other) ? -1 : keyOf(one) > keyOf(other) ? 1 : 0;
}

const operationOf = async ({ document }: DocumentContract, method: string, { pathname }: URL) =>
  (await loadDocument(document)).find(method, pathname);

/** The names under which a request is switched, and whether its answer is made from a contract. */
export async function namesOf(
  network: Network,
  { method, url: href }: Request,
  body: unknown,
): Promise<{ names: readonly string[]; isGenerated: boolean }> {
  const url = new URL(href);
  const { found, operations } = network.reach(method, url, body);
  if (operations) {
    const nameOf = (operation: Operation) =>
      network.find(operation.kind, addressOfOperation(operation))?.route.key ??
      `${operation.kind} ${operation.name || '*'}`;
    const names = operations.operations.map(nameOf);
    // The address they are sent to has a state too.
    return { names: [...names, ...(found ? [found.route.key] : [])], isGenerated: true };
  }
  if (!found) return { names: [], isGenerated: false };
  const { key, answer } = found.route;
  if (!isDocumentContract(answer)) return { names: [key], isGenerated: false };
  const operation = await operationOf(answer, method, url);
  return { names: operation ? [operation.route] : [], isGenerated: true };
}

/** True for what a route may answer, as far as that is known without the request. */
export async function mayAnswer(
  network: Network,
  routes: readonly string[],
  { method = 'GET', url = '/', headers }: IncomingMessage,
): Promise<boolean> {
  const address = addressOf(url, headers.host);
  const found = network.find(method, address);
  if (found && isDocumentContract(found.route.answer))
    return (await operationOf(found.route.answer, method, address)) !== undefined;
  if (found) return true;
  return method === 'POST' && /\bjson\b/.test(headers['content-type'] ?? '') && routes.some(isOfOperation);
}
