import { parsed } from '../../core/parsed';
import type { Line, Linked } from '../../core/channel';
import type { Environment } from '../../core/environment';
import { nextTurn } from '../../core/host';
import { noteMade } from '../../core/left';
import { print } from '../../core/print';
import { bytesOf, bytesOfText, isBlob, isBytes, readBlob } from '../carried';
import { baseAddress } from '../globals';
import { printAddress } from '../print-address';
import { connect, type Connecting } from './connect';
import { isToken } from './headers';
import { page, Target } from './page';
import { defineConstants, defineHandlers, dispatch, makeEvent, makeException, showMembers } from './targets';

const states = { CONNECTING: 0, OPEN: 1, CLOSING: 2, CLOSED: 3 };
const lost = 1006;

const fail = (name: string, message: string): never => {
  throw makeException(name, message);
};

/** The class of the WebSockets standard, answered by routes. @see https://websockets.spec.whatwg.org */
export class WebSocket extends Target {
  readonly url: string;
  readonly extensions = '';
  #protocol = '';
  #state = states.CONNECTING;
  #binaryType: 'blob' | 'arraybuffer' = 'blob';
  #buffered = 0;
  readonly #connecting: Connecting;
  readonly #owner: Environment | undefined;
  #link: Linked | undefined;
  readonly #what: string;
  readonly #forget: (() => void) | undefined;
  #over: (() => void) | undefined;

  constructor(url: string | URL, protocols: string | string[] = []) {
    super();
    const address = readAddress(String(url), fail);
    const offered = (typeof protocols === 'string' ? [protocols] : [...protocols]).map(String);
    if (!offered.every(isToken) || new Set(offered).size < offered.length)
      fail('SyntaxError', `${print(offered)} is no list of different protocols`);
    this.url = address.href;
    const below = WebSocket as unknown as () => void;
    const http = new URL(address.href.replace(/^ws/, 'http'));
    this.#what = `WS ${printAddress(http)}`;
    this.#forget = noteMade(`a WebSocket to ${printAddress(http)}`, below);
    this.#connecting = connect({ url: http, protocols: offered, line: this.#line(), below });
    this.#owner = this.#connecting.owner;
    this.#connecting.linked.then(
      (link) => this.#open(link, offered[0] ?? ''),
      () => this.#lose(),
    );
  }

  #line(): Line {
    return {
      deliver: (message) => this.#deliver(message),
      close: (code, reason) => this.#end(code, reason, true),
      fail: () => this.#end(lost, '', false),
    };
  }

  #open(link: Linked, protocol: string): void {
    if (this.#state !== states.CONNECTING) return;
    this.#link = link;
    this.#protocol = protocol;
    this.#state = states.OPEN;
    const owner = this.#owner;
    // Only the test or the component ends it.
    this.#over = owner?.work.begin('channel', this.#what, { held: true });
    owner?.sandbox.onTakeDown(() => this.#drop());
    owner?.chronicle.add('connected', this.#what, { trigger: true });
    dispatch(owner, this, makeEvent('Event', 'open'));
    link.open();
  }

  #deliver(message: unknown): void {
    if (this.#state !== states.OPEN) return;
    const data = this.#dataOf(message);
    this.#owner?.chronicle.add('received', this.#what, { detail: () => print(message, 60), trigger: true });
    const { origin } = new URL(this.url);
    dispatch(this.#owner, this, makeEvent('MessageEvent', 'message', { data, origin }));
  }

  #dataOf(message: unknown): unknown {
    if (typeof message === 'string') return message;
    const isBuffer = isBytes(message);
    if (!isBuffer && !isBlob(message)) return JSON.stringify(message);
    if (this.#binaryType === 'arraybuffer') return isBuffer ? bytesOf(message).slice().buffer : message;
    return isBuffer ? new (page['Blob'] as typeof Blob)([bytesOf(message)]) : message;
  }

  send(data: unknown): void {
    if (this.#state === states.CONNECTING)
      fail('InvalidStateError', 'send() is possible only after the event "open"');
    const isBinary = isBytes(data) || isBlob(data);
    const message = isBinary ? data : String(data);
    const size = isBlob(message)
      ? message.size
      : bytesOf(isBinary ? message : bytesOfText(message as string)).byteLength;
    this.#buffered += size;
    if (this.#state !== states.OPEN) return;
    this.#owner?.chronicle.add('sent', this.#what, { detail: () => print(parsed(message), 60) });
    const link = this.#link!;
    queueMicrotask(() => {
      this.#buffered -= size;
      if (isBlob(message)) void readBlob(message).then((bytes) => link.take(bytes.buffer));
      else link.take(isBinary ? bytesOf(message).slice().buffer : message);
    });
  }

  close(code?: number, reason = ''): void {
    if (code !== undefined && code !== 1000 && !(code >= 3000 && code <= 4999))
      fail('InvalidAccessError', `A page may close with 1000 or 3000 to 4999, not with ${code}`);
    if (bytesOfText(String(reason)).byteLength > 123)
      fail('SyntaxError', 'The reason is longer than 123 bytes');
    this.#forget?.();
    if (this.#state >= states.CLOSING) return;
    const wasOpen = this.#state === states.OPEN;
    this.#state = states.CLOSING;
    const over = this.#owner?.work.begin('channel', this.#what);
    void nextTurn().then(() => {
      over?.();
      if (wasOpen) this.#end(code ?? 1005, code === undefined ? '' : String(reason), true);
      else this.#lose();
    });
  }

  #lose(): void {
    if (this.#state === states.CLOSED) return;
    this.#state = states.CLOSED;
    dispatch(this.#owner, this, makeEvent('Event', 'error'));
    this.#tellClosed(lost, '', false);
  }

  #end(code: number, reason: string, wasClean: boolean): void {
    if (this.#state === states.CLOSED) return;
    this.#state = states.CLOSED;
    this.#tellClosed(code, reason, wasClean);
  }

  #tellClosed(code: number, reason: string, wasClean: boolean): void {
    this.#drop();
    this.#forget?.();
    this.#owner?.chronicle.add('closed', this.#what, { detail: String(code), trigger: true });
    dispatch(this.#owner, this, makeEvent('CloseEvent', 'close', { code, reason, wasClean }));
  }

  /** Ends it without a word. */
  #drop(): void {
    this.#state = states.CLOSED;
    this.#over?.();
    this.#connecting.leave();
    this.#link?.end();
  }

  get readyState(): number {
    return this.#state;
  }
  get bufferedAmount(): number {
    return this.#buffered;
  }
  get protocol(): string {
    return this.#protocol;
  }
  get binaryType(): string {
    return this.#binaryType;
  }
  set binaryType(type: string) {
    if (type === 'blob' || type === 'arraybuffer') this.#binaryType = type;
  }
}
defineHandlers(WebSocket.prototype, ['open', 'error', 'close', 'message']);
defineConstants(WebSocket, states);
showMembers(WebSocket, 'WebSocket');

function readAddress(url: string, fail: (name: string, message: string) => never): URL {
  if (!URL.canParse(url, baseAddress())) fail('SyntaxError', `"${url}" is no URL`);
  const address = new URL(url, baseAddress());
  if (address.protocol === 'http:') address.protocol = 'ws:';
  if (address.protocol === 'https:') address.protocol = 'wss:';
  if (!/^wss?:$/.test(address.protocol)) fail('SyntaxError', `"${url}" is no address of a WebSocket`);
  if (address.href.includes('#')) fail('SyntaxError', `"${url}" has a fragment, which no WebSocket may have`);
  return address;
}
