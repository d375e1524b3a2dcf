import { runDue } from '../../core/due';
import { native, realm } from '../../core/host';
import { noteMade } from '../../core/left';
import { parsed } from '../../core/parsed';
import { print } from '../../core/print';
import { printSpan } from '../../core/spans';
import { ask, type Asking } from '../ask';
import { baseAddress, requestClass } from '../globals';
import { printAddress } from '../print-address';
import { readMime } from './headers';
import { Target } from './page';
import { defineConstants, defineHandlers, dispatch, makeEvent, makeException, showMembers } from './targets';

const states = { CONNECTING: 0, OPEN: 1, CLOSED: 2 };
/** How long it waits before it connects again, in milliseconds, where no event said otherwise. */
const usualRetry = 3000;

/** The class of server-sent events, answered by routes. @see https://html.spec.whatwg.org/#server-sent-events */
export class EventSource extends Target {
  readonly url: string;
  readonly withCredentials: boolean;
  #state = states.CONNECTING;
  readonly #what: string;
  #retry = usualRetry;
  #lastId = '';
  #asking: Asking | undefined;
  #abort = new (native('AbortController'))();
  #callOff: (() => void) | undefined;
  #forget: (() => void) | undefined;

  constructor(url: string | URL, { withCredentials = false }: EventSourceInit = {}) {
    super();
    if (!URL.canParse(String(url), baseAddress()))
      throw makeException('SyntaxError', `"${String(url)}" is no URL`);
    const address = new URL(String(url), baseAddress());
    this.url = address.href;
    this.#what = `GET ${printAddress(address)}`;
    this.withCredentials = Boolean(withCredentials);
    this.#forget = noteMade(
      `an EventSource of ${printAddress(address)}`,
      EventSource as unknown as () => void,
    );
    this.#connect();
  }

  get readyState(): number {
    return this.#state;
  }

  close(): void {
    this.#forget?.();
    this.#drop();
  }

  /** Ends it without a word. */
  #drop(): void {
    this.#state = states.CLOSED;
    this.#callOff?.();
    this.#abort.abort();
  }

  #connect(): void {
    this.#abort = new (native('AbortController'))();
    const request = new (requestClass())(this.url, {
      headers: { accept: 'text/event-stream', ...(this.#lastId && { 'last-event-id': this.#lastId }) },
      cache: 'no-store',
      credentials: this.withCredentials ? 'include' : 'same-origin',
      signal: this.#abort.signal,
    });
    const below = EventSource as unknown as () => void;
    const asking = (this.#asking = ask(request, { body: undefined, carrier: 'EventSource', below }));
    asking.owner?.sandbox.onTakeDown(() => this.#drop());
    asking.response.then(
      (response) => void this.#receive(asking, response),
      // It looks like a server that is gone for a while, except where no subject answers.
      () => (this.#asking === asking ? this.#connectAgain() : undefined),
    );
  }

  async #receive(asking: Asking, response: Response): Promise<void> {
    if (this.#state === states.CLOSED || this.#asking !== asking) return;
    if (
      response.status !== 200 ||
      readMime(response.headers.get('content-type'))?.essence !== 'text/event-stream'
    )
      return this.#giveUp();
    this.#state = states.OPEN;
    asking.owner?.chronicle.add('connected', this.#what, { trigger: true });
    this.#tell('open');
    const parse = readEvents({
      event: (type, data, id) => {
        this.#lastId = id;
        const origin = new URL(response.url || this.url).origin;
        const detail = () => `${type === 'message' ? '' : `${type} `}${print(parsed(data), 60)}`;
        asking.owner?.chronicle.add('received', this.#what, { detail, trigger: true });
        const event = makeEvent('MessageEvent', type, { data, origin, lastEventId: id });
        dispatch(asking.owner, this, event);
      },
      id: (id) => (this.#lastId = id),
      retry: (milliseconds) => (this.#retry = milliseconds),
    });
    const decoder = new realm.TextDecoder();
    try {
      const reader = response.body?.getReader();
      for (;;) {
        const read = await reader?.read();
        if (this.#asking !== asking || this.readyState === states.CLOSED)
          return void reader?.cancel().catch(() => undefined);
        if (!read || read.done) break;
        parse(decoder.decode(read.value, { stream: true }));
      }
    } catch {
      // A body that breaks off is a connection that is lost.
    }
    this.#connectAgain();
  }

  #connectAgain(): void {
    const owner = this.#asking?.owner;
    if (this.#state === states.CLOSED) return;
    if (!owner || owner.state !== 'up') return this.#giveUp();
    this.#state = states.CONNECTING;
    this.#tell('error');
    if (this.readyState === states.CLOSED) return;
    owner.chronicle.add('closed', this.#what, { detail: `connects again in ${printSpan(this.#retry)}` });
    const label = `the reconnection of ${this.#what}`;
    this.#callOff = runDue(owner, this.#retry, label, () => this.#connect());
  }

  #giveUp(): void {
    this.#state = states.CLOSED;
    this.#forget?.();
    this.#tell('error');
  }

  #tell(type: string): void {
    dispatch(this.#asking?.owner, this, makeEvent('Event', type));
  }
}
defineHandlers(EventSource.prototype, ['open', 'message', 'error']);
defineConstants(EventSource, states);
showMembers(EventSource, 'EventSource');

interface Listening {
  event(type: string, data: string, lastId: string): void;
  id(id: string): void;
  retry(milliseconds: number): void;
}

/** Reads a stream of events as its text arrives. @see https://html.spec.whatwg.org/#event-stream-interpretation */
export function readEvents(listening: Listening): (text: string) => void {
  let left = '';
  let endedInReturn = false;
  let [type, data, id]: [string, string[], string] = ['', [], ''];
  const line = (text: string) => {
    if (text === '') {
      listening.id(id);
      if (data.length > 0) listening.event(type || 'message', data.join('\n'), id);
      [type, data] = ['', []];
      return;
    }
    const at = text.indexOf(':');
    const field = at < 0 ? text : text.slice(0, at);
    const value = at < 0 ? '' : text.slice(at + 1).replace(/^ /, '');
    if (field === 'data') data.push(value);
    else if (field === 'event') type = value;
    else if (field === 'id' && !value.includes('\0')) id = value;
    else if (field === 'retry' && /^\d+$/.test(value)) listening.retry(Number(value));
  };
  return (given) => {
    let text = given;
    // A line may end in "\r\n", and the two may come apart.
    if (endedInReturn) text = text.replace(/^\n/, '');
    endedInReturn = text.endsWith('\r') || (endedInReturn && text === '');
    const parts = (left + text).split(/\r\n|\r|\n/);
    left = parts.pop()!;
    for (const part of parts) line(part);
  };
}
