import type { Environment } from '../core/environment';
import { settleAnswer, type Settled } from '../core/settle-answer';
import type { Begun, Sent } from './asked';
import { answerByDocument, fitted } from './documented';
import { isSchemaAnswer } from './from-json-schema';
import { isDocumentContract } from './from-open-api';
import { isA } from './carried';
import { rawBodyOf, watchReading } from './globals';
import { brokenConnection } from './nobody';
import { makeFailedResponse, makeResponse } from './reply';
import { wordRouteThrew } from './thrown';

/** What else is known of a request whose answer is settled. */
type Settling = { readonly answer?: unknown; readonly signal?: AbortSignal } & Pick<Sent, 'onUpload'>;

/** What an answer that is a function is called with. */
type Call = (answer: (...args: never[]) => unknown) => unknown;

/**
 * Settles the answer of a route. The component may catch what it throws, so the test also gets it directly.
 *
 * @throws the broken connection that the component sees instead
 */
export async function settleRoute(
  environment: Environment,
  { what, asked, found }: Begun,
  call: Call,
  { answer = found!.route.answer, onUpload, signal }: Settling = {},
): Promise<Settled> {
  try {
    return await settleAnswer(answer, { environment, label: what, from: asked.from, onUpload, signal, call });
  } catch (error) {
    throw await breakRoute(environment, { what, found }, error);
  }
}

async function breakRoute(
  environment: Environment,
  { what, found }: Pick<Begun, 'what' | 'found'>,
  error: unknown,
): Promise<Error> {
  environment.fail(wordRouteThrew(error, found!.route));
  await environment.gate.pass(what);
  return brokenConnection(error);
}

/** The answer of a route; the error that breaks the connection where it has none. */
export async function respond(
  environment: Environment,
  begun: Begun,
  request: Request,
  { onUpload, carrier }: Sent,
): Promise<Response | Error> {
  const { route, params } = begun.found!;
  const { answer: contract, key } = route;
  const fitting = isSchemaAnswer(contract) ? contract : undefined;
  const call: Call = (answer) =>
    (answer as (request: Request, params: object) => unknown)(
      // What is sent as a stream takes as long as the component does.
      watchReading(
        request.clone() as Request,
        environment,
        begun.what,
        isA(rawBodyOf(request), 'ReadableStream'),
      ),
      params,
    );
  let settled: Settled | undefined;
  try {
    if (isDocumentContract(contract))
      return (await answerByDocument(contract, begun, request, environment)) ?? brokenConnection();
    settled = await settleRoute(environment, begun, call, {
      answer: fitting ? fitting.answer : contract,
      onUpload,
      signal: request.signal,
    });
    if (settled.outcome === 'failure')
      return makeFailedResponse(settled.failure) ?? brokenConnection(settled.failure.reason);
    const value = fitting ? await fitted(fitting, settled.value, key, environment) : settled.value;
    return await makeResponse(value, { route: key, request, params, environment, carrier });
  } catch (error) {
    const isTold = !settled && !isDocumentContract(contract);
    return isTold ? (error as Error) : breakRoute(environment, begun, error);
  }
}
