import { noteExchange } from '../exchanges';
import { native } from '../../core/host';
import { explain } from '../errors';
import type { Begun } from '../asked';
import type { Network } from '../network';
import { brokenConnection } from '../nobody';
import type { Operation } from '../operations';
import { makeFailedResponse } from '../reply';
import { goesOn } from '../reply-bodies';
import type { Result } from './results';
import { resultOf, settleOperation } from './settle';
import { makeEvents } from './subscriptions';

interface Asked {
  readonly all: readonly { readonly operation: Operation; readonly begun: Begun }[];
  readonly isBatch: boolean;
}

/** Answers the operations of a request by their routes. @throws TypeError for a broken connection, as fetch does */
export async function answerOperations(
  network: Network,
  request: Request,
  { all, isBatch }: Asked,
): Promise<Response> {
  const results = await Promise.all(
    all.map(({ operation, begun }) => answerOne(network, request, operation, begun)),
  );
  if (request.signal.aborted) throw request.signal.reason;
  const [first] = results;
  if (!isBatch && first instanceof Response) return first;
  const body = results.map((one) =>
    one instanceof Response ? { errors: [{ message: `${one.status} ${one.statusText}` }] } : one,
  );
  return new (native('Response'))(JSON.stringify(isBatch ? body : body[0]), {
    status: 200,
    statusText: 'OK',
    headers: { 'content-type': 'application/json' },
  });
}

async function answerOne(
  network: Network,
  request: Request,
  operation: Operation,
  begun: Begun,
): Promise<Result | Response> {
  const { environment } = network;
  request.signal.addEventListener('abort', () => {
    if (begun.asked.status === undefined) environment.chronicle.add('aborted', begun.what);
  });
  const told = (status: number, detail: string) => {
    begun.asked.status = status;
    environment.chronicle.add('answered', begun.what, { detail, trigger: true });
  };
  const settled = await settleOperation(environment, begun, operation, request);
  if (settled.outcome === 'failure') {
    const failed = makeFailedResponse(settled.failure);
    told(failed?.status ?? 0, failed ? String(failed.status) : 'broken connection');
    if (failed) return failed;
    throw brokenConnection(settled.failure.reason);
  }
  if (
    /\btext\/event-stream\b/.test(request.headers.get('accept') ?? '') &&
    operation.kind === 'SUBSCRIPTION'
  ) {
    told(200, 'events');
    return makeEvents(network, begun, operation, settled.value);
  }
  if (goesOn(settled.value)) {
    const { key } = begun.found!.route;
    const why =
      'what goes on needs a socket or a stream of events, and this came as a request with one answer';
    environment.fail(explain('SIM-ROUTE-ANSWER', { route: key, why }));
    throw brokenConnection();
  }
  const result = await environment.work.during('body', begun.what, () =>
    resultOf(environment, begun, operation, settled.value),
  );
  const headers = new (native('Headers'))({ 'content-type': 'application/json' });
  const { elapsed } = environment.chronicle;
  const content = JSON.stringify(result);
  noteExchange(begun.asked, { status: 200, headers }, elapsed, { content, operation });
  told(200, result.errors ? `200, ${result.errors.map(({ message }) => message).join('; ')}` : '200');
  return result;
}
