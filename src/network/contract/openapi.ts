import type { Environment } from '../../core/environment';
import { isExplained } from '../../core/errors/called-from';
import { native } from '../../core/host';
import { nearest } from '../../core/near';
import { explain } from '../errors';
import type { Begun } from '../asked';
import { madeOf } from '../exchanges';
import { isDocumentContract, type DocumentContract } from '../from-open-api';
import type { Route } from '../routes';
import { printPath } from '../print-address';
import { phraseOf } from '../reply';
import { isEndless } from '../reply-bodies';
import { fitsType, loadDocument, resolve, type Documented, type DocumentedOperation } from './documents';
import type { Drift } from './execute';
import { findDrifts, validatorOf } from './fitting';
import { exampleOf, makeValue } from './generate';
import { checkRequest } from './requests';

type Json = Readonly<Record<string, unknown>>;

/** A request, and the route that answers it. */
interface Asked {
  readonly request: Request;
  readonly body: unknown;
  readonly environment: Environment;
  /** The route as the user wrote it. */
  readonly route: string;
}

/** What a document answers to a request; undefined where it has no such operation. */
export async function answerFrom(contract: DocumentContract, asked: Asked): Promise<Response | undefined> {
  const documented = await loadDocument(contract.document);
  const operation = await operationOf(documented, asked);
  if (!operation) return undefined;
  return reading(operation, () => makeAnswer(documented, operation, asked));
}

/** Documents come from elsewhere, and anything may be in them. @throws SIM-CONTRACT-DOCUMENT where it is not what it should be */
async function reading<T>({ pointer }: DocumentedOperation, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (cause) {
    if (isExplained(cause)) throw cause;
    const why = `what is there is no operation (${(cause as Error).message})`;
    throw explain('SIM-CONTRACT-DOCUMENT', { why, at: pointer }, { cause });
  }
}

async function makeAnswer(
  documented: Documented,
  operation: DocumentedOperation,
  asked: Asked,
): Promise<Response> {
  const problems = await checkRequest(documented, operation, asked);
  if (problems.length > 0) tellOfRequest(asked, problems);
  const [status, response] = usual(documented.document, operation);
  const [type, content] = contentOf(documented.document, response);
  if (content === undefined) return new (native('Response'))(null, { status, statusText: phraseOf(status) });
  const { document } = documented;
  const schema = content['schema'] ?? {};
  const place = { owner: ownerOf(operation), field: 'value', path: [] };
  const value = exampleOf(document, content) ?? namedAs(operation, makeValue(document, schema, place));
  const body = /\bjson\b/.test(type) ? JSON.stringify(value) : String(value);
  const init = { status, statusText: phraseOf(status), headers: { 'content-type': type } };
  return madeOf(new (native('Response'))(body, init), body);
}

// What is asked for by its id has that id.
function namedAs({ pointer, params }: DocumentedOperation, value: unknown): unknown {
  const [, name] = /\{([^}~]+)\}\/[a-z]+$/.exec(pointer) ?? [];
  const id = name === undefined ? undefined : params[name];
  if (id === undefined || typeof value !== 'object' || value === null || !('id' in value)) return value;
  return { ...value, id: typeof value.id === 'number' && /^\d+$/.test(id) ? Number(id) : id };
}

/** Checks what is sent, and what a route answers by hand, against the documents of other routes. */
export async function checkByDocuments(
  routes: readonly Route[],
  { asked, found }: Begun,
  request: Request,
  answer: Response | Error,
  environment: Environment,
): Promise<void> {
  if (answer instanceof Error || isDocumentContract(found!.route.answer)) return;
  const url = new URL(request.url);
  try {
    for (const { answer: contract, match } of routes)
      if (isDocumentContract(contract) && match(request.method, url))
        await checkAnswer(
          contract,
          { request, body: asked.body, environment, route: found!.route.key },
          answer,
        );
  } catch (error) {
    // The component may catch what breaks its request.
    environment.fail(error as Error);
  }
}

async function checkAnswer(contract: DocumentContract, asked: Asked, response: Response): Promise<void> {
  const documented = await loadDocument(contract.document);
  const operation = await operationOf(documented, asked);
  if (!operation) return;
  const { environment, route } = asked;
  await reading(operation, async () => {
    const problems = await checkRequest(documented, operation, asked);
    if (problems.length > 0) tellOfRequest(asked, problems);
    const drifts = await driftsOf(documented, operation, response);
    if (drifts.length > 0) environment.fail(explain('SIM-CONTRACT-DRIFT', { route, drifts }));
  });
}

async function operationOf(documented: Documented, asked: Asked): Promise<DocumentedOperation | undefined> {
  const { request, environment } = asked;
  const url = new URL(request.url);
  const found = documented.find(request.method, url.pathname);
  if (!found) {
    const what = `${request.method} ${printPath(url)}`;
    environment.fail(
      explain('SIM-CONTRACT-UNKNOWN', {
        asked: what,
        route: asked.route,
        nearest: nearest(what, documented.routes),
      }),
    );
  }
  return found;
}

function tellOfRequest({ request, environment }: Asked, problems: readonly Drift[]): void {
  const what = `${request.method} ${printPath(new URL(request.url))}`;
  environment.fail(explain('SIM-CONTRACT-REQUEST', { asked: what, problems }));
}

/** The response that a server usually gives, by its status. */
function usual(
  document: Json,
  { operation }: DocumentedOperation,
): readonly [status: number, response: Json] {
  const responses = (operation['responses'] ?? {}) as Json;
  const keys = Object.keys(responses);
  const key = keys.find((one) => /^2\d\d$/.test(one)) ?? keys.find((one) => /^2XX$/i.test(one)) ?? 'default';
  return [/^\d+$/.test(key) ? Number(key) : 200, resolve(document, responses[key])];
}

function contentOf(document: Json, response: Json): readonly [type: string, content: Json | undefined] {
  const entries = Object.entries((response['content'] ?? {}) as Json);
  const [type = '', content] = entries.find(([name]) => /\bjson\b/.test(name)) ?? entries[0] ?? [];
  return [type, content === undefined ? undefined : resolve(document, content)];
}

// What a response is about, where its schema does not say: the last part of the path that is no parameter.
function ownerOf({ pointer }: DocumentedOperation): string {
  const segments = pointer
    .split('/')[2]!
    .split('~1')
    .filter((part) => part && !part.startsWith('{'));
  return (segments.at(-1) ?? 'value').replace(/s$/, '');
}

async function driftsOf(
  documented: Documented,
  operation: DocumentedOperation,
  response: Response,
): Promise<Drift[]> {
  const responses = (operation.operation['responses'] ?? {}) as Json;
  const { status } = response;
  const key = [String(status), `${String(status)[0]}XX`, `${String(status)[0]}xx`, 'default'].find(
    (one) => one in responses,
  );
  if (key === undefined) {
    // A document seldom describes a server that is out of order.
    if (status >= 500) return [];
    const promised = Object.keys(responses).join(', ');
    return [{ path: 'the status', why: `${status} is not promised (${promised})`, nearest: undefined }];
  }
  const own = responses[key] as Json;
  const pointer = '$ref' in own ? String(own['$ref']).slice(1) : `${operation.pointer}/responses/${key}`;
  const contents = (resolve(documented.document, own)['content'] ?? {}) as Json;
  const names = Object.keys(contents);
  if (names.length === 0 || isEndless(response) || response.body === null) {
    const lacks = names.length > 0 && response.body === null && status !== 304;
    return lacks ? [{ path: 'the body', why: 'it is missing', nearest: undefined }] : [];
  }
  const type = (response.headers.get('content-type') ?? '').split(';')[0]!.trim();
  const name = names.find((one) => fitsType(one, type));
  if (name === undefined)
    return [
      {
        path: 'the content type',
        why: `${type || 'none'} is not promised (${names.join(', ')})`,
        nearest: undefined,
      },
    ];
  const schema = (contents[name] as Json)['schema'];
  if (schema === undefined || !/\bjson\b/.test(type)) return [];
  const at = `${pointer}/content/${name.replace(/~/g, '~0').replace(/\//g, '~1')}/schema`;
  let value: unknown;
  try {
    value = JSON.parse(await response.clone().text());
  } catch (error) {
    return [{ path: 'the body', why: `it is no JSON (${(error as Error).message})`, nearest: undefined }];
  }
  return findDrifts(documented, (await validatorOf(documented))(at), schema, value);
}
