import { markOf } from '../core/mark';
import { isChannel, makeConnection, type Channel, type EventFields, type Linked } from '../core/channel';
import type { Environment } from '../core/environment';
import { native } from '../core/host';
import { runAs } from '../core/ownership';
import { print } from '../core/print';
import type { Listener, Stream } from '../core/stream';
import { bytesOf, bytesOfText, isBytes } from './carried';

/** True for an answer that goes on: a stream or a channel. */
export const goesOn = (value: unknown): value is Stream<unknown> | Channel =>
  isChannel(value) || markOf(value) === 'stream';

/** Listens to a stream for a subject, as part of what a message names already. @returns how to end it */
export function listenFor(
  environment: Environment,
  source: Stream<unknown>,
  listener: Pick<Listener<unknown>, 'next' | 'error' | 'complete'>,
): () => void {
  const subscription = runAs(environment, () => source.subscribe({ isPart: true, ...listener }));
  return () => subscription.unsubscribe();
}

/** Why an answer is none for a socket; undefined for one that is. */
export const whyNoSocket = (value: unknown): string | undefined =>
  goesOn(value)
    ? undefined
    : `a WebSocket receives messages, and ${print(value, 40)} does not say which, or when`;

const endless = new WeakSet<object>();

/** True for a response whose body ends only when the test ends it. */
export const isEndless = (response: Response): boolean => endless.has(response);

/** Marks a response as one whose body ends only when the test ends it. */
export function markEndless(response: Response): Response {
  endless.add(response);
  return response;
}

interface Asked {
  readonly environment: Environment;
  readonly request: Request;
  readonly params: Readonly<Record<string, string>>;
}

/** A response with a body that is sent bit by bit: as a stream of events where the request asks for one. */
export function makeStreamed(source: Stream<unknown> | Channel, asked: Asked): Response {
  const { request, environment, params } = asked;
  const isEvents = /\btext\/event-stream\b/i.test(request.headers.get('accept') ?? '');
  const encode = isEvents ? encodeEvent : encodeChunk;
  let connection: Linked | undefined;
  let unsubscribe: (() => void) | undefined;
  let isOver = false;
  const body = new (native('ReadableStream'))<Uint8Array>({
    start(controller) {
      const once = (work: () => void) => {
        if (isOver) return;
        isOver = true;
        connection?.end();
        work();
      };
      const line = {
        deliver: (message: unknown, fields: EventFields) =>
          isOver ? undefined : controller.enqueue(toBytes(encode(message, fields))),
        close: () => once(() => controller.close()),
        fail: () => once(() => controller.error(new TypeError('network error'))),
      };
      if (isChannel(source)) {
        const lastEventId = request.headers.get('last-event-id') ?? '';
        connection = makeConnection({ url: request.url, params, protocols: [], lastEventId }, line);
        source.join(connection, environment);
        connection.open();
        request.signal.addEventListener('abort', () => once(() => undefined));
      } else {
        unsubscribe = listenFor(environment, source, {
          next: (value) => line.deliver(value, {}),
          error: line.fail,
          complete: line.close,
        });
      }
    },
    cancel() {
      isOver = true;
      connection?.end();
      unsubscribe?.();
    },
  });
  const type = isEvents ? 'text/event-stream' : 'text/plain;charset=UTF-8';
  const response = new (native('Response'))(body, {
    status: 200,
    statusText: 'OK',
    headers: { 'content-type': type },
  });
  return markEndless(response);
}

const toBytes = (value: string | Uint8Array<ArrayBuffer>) =>
  typeof value === 'string' ? bytesOfText(value) : value;

/** Text and bytes as they are; everything else as a line of JSON. */
function encodeChunk(value: unknown): string | Uint8Array<ArrayBuffer> {
  if (typeof value === 'string') return value;
  return isBytes(value) ? bytesOf(value) : `${JSON.stringify(value)}\n`;
}

/** @see https://html.spec.whatwg.org/#event-stream-interpretation */
function encodeEvent(value: unknown, { event, id, retry }: EventFields): string {
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  const head = [
    ...(event === undefined ? [] : [`event: ${event}`]),
    ...(id === undefined ? [] : [`id: ${id}`]),
    ...(retry === undefined ? [] : [`retry: ${retry}`]),
  ];
  return [...head, ...text.split(/\r\n|\r|\n/).map((line) => `data: ${line}`), '', ''].join('\n');
}
