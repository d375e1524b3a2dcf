import { isChannel, makeConnection, type EventFields, type Line, type Linked } from '../../core/channel';
import { native } from '../../core/host';
import { runAs } from '../../core/ownership';
import { bytesOfText } from '../carried';
import type { Begun, Sent } from '../asked';
import type { Network } from '../network';
import { readOperation, type Operation } from '../operations';
import { goesOn, listenFor, markEndless } from '../reply-bodies';
import { resultOf, settleOperation } from './settle';

/** Whoever listens to a subscription. */
interface Subscriber {
  next(result: unknown): void;
  complete(): void;
  fail(message: string): void;
}

/** Tells a subscriber what a route emits, or its one value. @returns how to end it */
function emit(
  network: Network,
  begun: Begun,
  operation: Operation,
  value: unknown,
  to: Subscriber,
): () => void {
  const { environment } = network;
  // Each value waits for the one before.
  let last = Promise.resolve();
  const after = (work: () => void | Promise<void>) => void (last = last.then(work));
  const next = (one: unknown) =>
    after(async () => {
      const over = environment.work.begin('body', begun.what);
      const result = await resultOf(environment, begun, operation, one);
      runAs(environment, () => to.next(result));
      over();
    });
  const complete = () => after(() => to.complete());
  const fail = (message: string) => after(() => to.fail(message));
  if (!goesOn(value)) {
    next(value);
    complete();
    return () => undefined;
  }
  if (!isChannel(value))
    return listenFor(environment, value, {
      next,
      complete,
      error: (reason) => fail(String((reason as Error).message)),
    });
  const line: Line = {
    deliver: (message: unknown, _: EventFields) => next(message),
    close: complete,
    fail: () => fail('lost'),
  };
  const about = { url: begun.asked.url, params: begun.found!.params, protocols: [], lastEventId: '' };
  const connection = makeConnection(about, line);
  value.join(connection, environment);
  connection.open();
  return () => connection.end();
}

interface Message {
  readonly type: string;
  readonly id?: string;
  readonly payload?: unknown;
}

/** Plays the server of operations that are sent by a socket. */
export function serveOperations(network: Network, connection: Linked, sent: Sent): void {
  const ends = new Map<string, () => void>();
  const send = (message: Message) => (connection.isOpen ? connection.send(message) : undefined);
  const begin = async (id: string, payload: unknown) => {
    const operation = readOperation(payload);
    const failed = (message: string) => send({ id, type: 'error', payload: [{ message }] });
    if (!operation) return failed('The message names no operation');
    const begun = network.beginOperation(operation, connection.url, { ...sent, contract: network.contract });
    try {
      await network.refuseUnreached(begun);
      const settled = await settleOperation(network.environment, begun, operation, undefined);
      begun.asked.status = 200;
      if (settled.outcome === 'failure')
        return failed(String(settled.failure.reason ?? 'The operation failed'));
      const subscriber: Subscriber = {
        next: (result) => send({ id, type: 'next', payload: result }),
        complete: () => send({ id, type: 'complete' }),
        fail: failed,
      };
      ends.set(id, emit(network, begun, operation, settled.value, subscriber));
    } catch (error) {
      failed((error as Error).message);
    }
  };
  connection.listen((message) => {
    const { type, id = '', payload } = message as Message;
    if (type === 'connection_init') send({ type: 'connection_ack' });
    else if (type === 'ping') send({ type: 'pong' });
    else if (type === 'subscribe') void runAs(network.environment, () => begin(id, payload));
    else if (type === 'complete') {
      ends.get(id)?.();
      ends.delete(id);
    }
  });
}

/** A response with a subscription's values, event by event. @see https://github.com/enisdenjo/graphql-sse/blob/master/PROTOCOL.md */
export function makeEvents(network: Network, begun: Begun, operation: Operation, value: unknown): Response {
  let end: (() => void) | undefined;
  let isOver = false;
  const body = new (native('ReadableStream'))<Uint8Array>({
    start(controller) {
      const write = (text: string) => (isOver ? undefined : controller.enqueue(bytesOfText(text)));
      const close = () => {
        if (isOver) return;
        write('event: complete\ndata:\n\n');
        isOver = true;
        controller.close();
      };
      end = emit(network, begun, operation, value, {
        next: (result) => write(`event: next\ndata: ${JSON.stringify(result)}\n\n`),
        complete: close,
        fail: (message) => {
          write(`event: next\ndata: ${JSON.stringify({ errors: [{ message }] })}\n\n`);
          close();
        },
      });
    },
    cancel() {
      isOver = true;
      end?.();
    },
  });
  const headers = { 'content-type': 'text/event-stream' };
  return markEndless(new (native('Response'))(body, { status: 200, statusText: 'OK', headers }));
}
