import { markOf } from './mark';
import { directed, directing } from './director';
import { refuse } from './errors';
import { calledFrom } from './errors/called-from';
import { Memory } from './memory';
import type { Environment } from './environment';
import { parsed } from './parsed';
import { restOfAll } from './rest-of-all';
import { allUp } from './shared';

/** What goes with a message of a stream of events. @see https://html.spec.whatwg.org/#event-stream-interpretation */
export interface EventFields {
  /** The type of the event; `message` unless said otherwise. */
  readonly event?: string;
  /** The last event id that the component names when it connects again. */
  readonly id?: string;
  /** How many milliseconds the component waits before it connects again. */
  readonly retry?: number;
}

/** One connection of a component, seen from the server. */
export interface Connection<Sent = unknown, Received = unknown> {
  readonly url: string;
  /** The path parameters of the route. */
  readonly params: Readonly<Record<string, string>>;
  /** The protocols that the component offered. */
  readonly protocols: readonly string[];
  /** The id of the last event that the component knows; empty for none. */
  readonly lastEventId: string;
  readonly isOpen: boolean;
  /** What the component sent, oldest first: parsed where it is JSON, else as it was sent. */
  readonly received: readonly Received[];
  /** Calls a function with each message of the component, parsed as in `received`. */
  listen(listener: (message: Received) => void): void;
  /** Sends a message: text and bytes as they are, everything else as JSON. */
  send(message: Sent, fields?: EventFields): void;
  /** Closes the connection. @param code 1000 unless said otherwise @see https://www.rfc-editor.org/rfc/rfc6455#section-7.4 */
  close(code?: number, reason?: string): void;
  /** Breaks the connection, as a server that is gone does. */
  fail(): void;
}

/** The connections of components that a test drives: an answer of routes, `'WS /live/scales': channel()`. */
export interface Channel<Sent = unknown, Received = unknown> {
  readonly simulacra: 'channel';
  /** How often a component connected so far in this test. */
  readonly opened: number;
  /** The connections that are open, oldest first. */
  readonly connections: readonly Connection<Sent, Received>[];
  /** What components sent on all connections, oldest first: parsed where it is JSON, else as it was sent. */
  readonly received: readonly Received[];
  /**
   * Sends a message on every open connection; resolves when the page is at rest.
   *
   * @param message text and bytes are sent as they are, everything else as JSON
   * @param fields what goes with an event of an EventSource
   * @throws SIM-CHANNEL-CLOSED where no connection is open
   */
  send(message: Sent, fields?: EventFields): Promise<void>;
  /** Closes every open connection; resolves when the page is at rest. @throws SIM-CHANNEL-CLOSED where none is open */
  close(code?: number, reason?: string): Promise<void>;
  /** Breaks every open connection; resolves when the page is at rest. @throws SIM-CHANNEL-CLOSED where none is open */
  fail(): Promise<void>;
  /** Used by the network: a component of a subject has connected. */
  join(connection: object, environment: object): void;
}

/** How a connection reaches the component. */
export interface Line {
  deliver(message: unknown, fields: EventFields): void;
  close(code: number, reason: string): void;
  fail(): void;
}

/** The server's side of a connection, with what only the network uses. */
export interface Linked extends Connection {
  /** The component has sent a message. */
  take(message: unknown): void;
  /** From here on messages arrive; those that were sent before arrive now. */
  open(): void;
  /** The connection has ended. */
  end(): void;
}

/** What is known of a connection before it is open. */
export type About = Pick<Connection, 'url' | 'params' | 'protocols' | 'lastEventId'>;

/** Makes the server's side of a connection. */
export function makeConnection(about: About, line: Line): Linked {
  const received: unknown[] = [];
  const listeners: ((message: unknown) => void)[] = [];
  let state: 'opening' | 'open' | 'over' = 'opening';
  const early: (() => void)[] = [];
  const whenOpen = (work: () => void) => {
    if (state === 'open') work();
    else if (state === 'opening') early.push(work);
  };
  return {
    ...about,
    received,
    get isOpen() {
      return state === 'open';
    },
    listen: (listener) => void listeners.push(listener as (message: unknown) => void),
    send: (message, fields = {}) => whenOpen(() => line.deliver(message, fields)),
    close: (code = 1000, reason = '') => whenOpen(() => line.close(code, reason)),
    fail: () => whenOpen(() => line.fail()),
    take(message) {
      const read = parsed(message);
      received.push(read);
      for (const listener of listeners) listener(read);
    },
    open() {
      state = 'open';
      for (const work of early.splice(0)) work();
    },
    end: () => void (state = 'over'),
  };
}

/** What a channel remembers for one subject. */
interface State {
  readonly all: Linked[];
  readonly received: unknown[];
}

/**
 * The far end of connections: a component's WebSocket or EventSource connects to the route that this answers,
 * and the test sends, closes and breaks. After it was closed or broken, a component may connect again.
 *
 * @example
 * const scales = channel<{ kilograms: number }>();
 * const bench = await open({ network: { 'WS /live/scales': scales } });
 * const heard: unknown[] = [];
 * const socket = await bench.run(() => new WebSocket('/live/scales'));
 * socket.onmessage = ({ data }) => heard.push(data);
 * await scales.send({ kilograms: 31.4 });
 * expect(heard).toEqual(['{"kilograms":31.4}']);
 * socket.close();
 */
export function channel<Sent = unknown, Received = unknown>(): Channel<Sent, Received> {
  const memory = new Memory<State>(() => ({ all: [], received: [] }));
  const all = () => memory.live().flatMap((state) => state.all);
  const open = () => all().filter(({ isOpen }) => isOpen);
  const each = async (asked: string, calledAt: Error, work: (connection: Linked) => void) => {
    await directed(asked, async () => {
      // Where orders of arrival are tried, a connection that opens later has to open first.
      for (const one of directing.current ? allUp() : [])
        await directing.current?.until(one, () => open().length > 0);
      const connections = open();
      if (connections.length === 0)
        refuse('SIM-CHANNEL-CLOSED', { asked, opened: all().length }, { calledAt });
      for (const connection of connections) work(connection);
      await restOfAll();
    });
  };
  const made: Channel<Sent, Received> = {
    simulacra: 'channel',
    get opened() {
      return all().length;
    },
    get connections() {
      return open() as unknown as Connection<Sent, Received>[];
    },
    get received() {
      return memory.live().flatMap((state) => state.received) as Received[];
    },
    send: (message, fields) =>
      each('send', calledFrom('send', made.send), (one) => one.send(message, fields)),
    close: (code, reason) => each('close', calledFrom('close', made.close), (one) => one.close(code, reason)),
    fail: () => each('fail', calledFrom('fail', made.fail), (one) => one.fail()),
    join: (connection, environment) => {
      const state = memory.of(environment as Environment);
      const linked = connection as Linked;
      state.all.push(linked);
      linked.listen((message) => void state.received.push(message));
    },
  };
  return made;
}

/** True for what `channel()` returns. */
export const isChannel = (value: unknown): value is Channel => markOf(value) === 'channel';
