import { parsed } from '../../core/parsed';
import { runDue } from '../../core/due';
import type { Environment } from '../../core/environment';
import { native } from '../../core/host';
import { printSpan } from '../../core/spans';
import { ask } from '../ask';
import { refuseSync } from '../carriers';
import { printAddress } from '../print-address';
import { isEndless } from '../reply-bodies';
import { encodeBody, type Encoded } from './bodies';
import { isForbidden, isToken, lengthIn } from './headers';
import { Answer, fail, states } from './answer';
import { Received } from './received';
import { makeRequest, readHeader, readOpened, type Sending } from './sending';
import { defineConstants, defineHandlers, dispatch, makeEvent, showMembers } from './targets';
import { isHeard, XMLHttpRequestEventTarget, XMLHttpRequestUpload } from './upload';

/** Answered by routes. @see https://xhr.spec.whatwg.org */
export class XMLHttpRequest extends XMLHttpRequestEventTarget {
  readonly #upload = new XMLHttpRequestUpload();
  #method = 'GET';
  #url: URL | undefined;
  #isAsync = true;
  #headers: [name: string, value: string][] = [];
  #timeout = 0;
  #hasCredentials = false;
  #sending: Sending | undefined;
  readonly #answer = new Answer();

  open(method: string, url: string | URL, isAsync: unknown = true): void {
    const opened = readOpened(String(method), String(url));
    this.#stop();
    this.#method = opened.method;
    this.#url = opened.url;
    this.#isAsync = Boolean(isAsync);
    this.#headers = [];
    this.#answer.received = new Received();
    if (this.#answer.state === states.OPENED) return;
    this.#answer.state = states.OPENED;
    this.#fire('readystatechange');
  }

  setRequestHeader(name: string, value: string): void {
    this.#refuseUnlessOpened('setRequestHeader');
    const text = readHeader(String(name), String(value));
    if (isForbidden(name, text)) return;
    const before = this.#headers.find(([other]) => other.toLowerCase() === name.toLowerCase());
    if (before) before[1] += `, ${text}`;
    else this.#headers.push([String(name), text]);
  }

  send(body: unknown = null): void {
    this.#refuseUnlessOpened('send');
    const url = this.#url!;
    const asked = `${this.#method} ${printAddress(url)}`;
    if (!this.#isAsync) throw refuseSync(asked);
    const hasBody = !/^(GET|HEAD)$/.test(this.#method) && body !== null && body !== undefined;
    const encoded = hasBody ? encodeBody(body) : undefined;
    const sending = this.#start(url, encoded);
    // An event below may end it.
    sending.asking.response.then(
      (response) => void this.#receive(sending, response),
      () => this.#end(sending, 'error'),
    );
    this.#fireProgress(this, 'loadstart', 0, 0);
    if (sending.tellsUpload) this.#fireProgress(this.#upload, 'loadstart', 0, sending.size);
    if (this.#sending !== sending) return;
    this.#armTimeout();
  }

  #start(url: URL, encoded: Encoded | undefined): Sending {
    const abort = new (native('AbortController'))();
    const request = makeRequest(url, encoded, {
      ...{ method: this.#method, headers: this.#headers, signal: abort.signal },
      hasCredentials: this.#hasCredentials,
    });
    const sending: Sending = {
      abort,
      startedAt: 0,
      size: encoded?.size ?? 0,
      tellsUpload: encoded !== undefined && isHeard(this.#upload),
      isUploaded: encoded === undefined,
      callOffTimeout: undefined,
      asking: ask(request, {
        body: parsed(encoded?.given),
        carrier: 'XMLHttpRequest',
        below: XMLHttpRequest.prototype.send as () => void,
        onUpload: (part) => this.#tellUpload(sending, part),
      }),
    };
    const { owner } = sending.asking;
    Object.assign(sending, { startedAt: owner?.clock.now() ?? 0 });
    return (this.#sending = sending);
  }

  abort(): void {
    const sending = this.#sending;
    this.#stop();
    if (sending) this.#fireEnd(sending, 'abort');
    if (this.#answer.state !== states.DONE) return;
    this.#answer.state = states.UNSENT;
    this.#answer.received = new Received();
  }

  /** Gives up what is under way, without a word. */
  #stop(): void {
    const sending = this.#sending;
    this.#sending = undefined;
    sending?.callOffTimeout?.();
    sending?.abort.abort();
  }

  async #receive(sending: Sending, response: Response): Promise<void> {
    if (this.#sending !== sending) return;
    const { owner } = sending.asking;
    // It counts as under way until the last event.
    const over = owner?.work.begin('body', `${this.#method} ${printAddress(this.#url!)}`, {
      held: isEndless(response),
    });
    try {
      if (sending.tellsUpload && !sending.isUploaded) {
        this.#tellUpload(sending, 1);
        // What is shown of it is seen before the answer is.
        await owner?.gate.pass('the end of an upload');
      }
      sending.isUploaded = true;
      if (this.#sending !== sending) return;
      this.#answer.received.begin(response, this.#answer.mime);
      this.#change(states.HEADERS_RECEIVED);
      const reader = response.body?.getReader();
      for (;;) {
        if (this.#sending !== sending) return void reader?.cancel().catch(() => undefined);
        const read = await reader?.read();
        if (this.#sending !== sending) return;
        if (!read || read.done) break;
        this.#answer.received.add(read.value);
        this.#answer.state = states.LOADING;
        this.#fire('readystatechange');
        this.#fireProgress(this, 'progress', this.#answer.received.size, lengthIn(response.headers));
      }
      this.#finish(sending, response);
    } catch {
      this.#end(sending, 'error');
    } finally {
      over?.();
    }
  }

  #finish(sending: Sending, response: Response): void {
    sending.callOffTimeout?.();
    const { size } = this.#answer.received;
    const length = lengthIn(response.headers);
    this.#sending = undefined;
    this.#answer.received.isWhole = true;
    this.#change(states.DONE);
    if (this.#answer.state !== states.DONE) return;
    this.#fireProgress(this, 'load', size, length, sending);
    this.#fireProgress(this, 'loadend', size, length, sending);
  }

  #end(sending: Sending, how: 'error' | 'timeout'): void {
    if (this.#sending !== sending) return;
    this.#stop();
    this.#fireEnd(sending, how);
  }

  /** @see https://xhr.spec.whatwg.org/#request-error-steps */
  #fireEnd(sending: Sending, how: 'error' | 'timeout' | 'abort'): void {
    this.#answer.received = new Received();
    this.#answer.state = states.DONE;
    this.#fire('readystatechange', sending);
    if (!sending.isUploaded) {
      sending.isUploaded = true;
      if (sending.tellsUpload)
        for (const type of [how, 'loadend']) this.#fireProgress(this.#upload, type, 0, 0, sending);
    }
    for (const type of [how, 'loadend']) this.#fireProgress(this, type, 0, 0, sending);
  }

  /** Tells how much of the body was sent: a part of 1. */
  #tellUpload(sending: Sending, part: number): void {
    if (this.#sending !== sending || sending.isUploaded) return;
    const { size } = sending;
    if (part >= 1) sending.isUploaded = true;
    if (!sending.tellsUpload) return;
    this.#fireProgress(this.#upload, 'progress', Math.round(size * Math.min(part, 1)), size);
    if (part >= 1) for (const type of ['load', 'loadend']) this.#fireProgress(this.#upload, type, size, size);
  }

  #armTimeout(): void {
    const sending = this.#sending;
    const owner: Environment | undefined = sending?.asking.owner;
    sending?.callOffTimeout?.();
    if (!sending || !owner || this.#timeout === 0) return;
    const left = Math.max(0, sending.startedAt + this.#timeout - owner.clock.now());
    const label = `the timeout of ${this.#method} ${printAddress(this.#url!)} after ${printSpan(this.#timeout)}`;
    sending.callOffTimeout = runDue(owner, left, label, () => this.#end(sending, 'timeout'));
  }

  #change(state: number): void {
    this.#answer.state = state;
    this.#fire('readystatechange');
  }

  #fire(type: string, sending = this.#sending): void {
    dispatch(sending?.asking.owner, this, makeEvent('Event', type));
  }

  #fireProgress(target: EventTarget, type: string, loaded: number, total: number, sending = this.#sending) {
    const fields = { loaded, total, lengthComputable: total > 0 };
    dispatch(sending?.asking.owner, target, makeEvent('ProgressEvent', type, fields));
  }

  #refuseUnlessOpened(what: string): void {
    if (this.#answer.state === states.OPENED && !this.#sending) return;
    fail('InvalidStateError', `${what}() is possible only between open() and send()`);
  }

  get upload(): XMLHttpRequestUpload {
    return this.#upload;
  }

  get readyState(): number {
    return this.#answer.state;
  }

  get timeout(): number {
    return this.#timeout;
  }
  set timeout(milliseconds: number) {
    this.#timeout = Math.max(0, Math.trunc(Number(milliseconds)) || 0);
    this.#armTimeout();
  }

  get withCredentials(): boolean {
    return this.#hasCredentials;
  }
  set withCredentials(isOn: boolean) {
    if (this.#answer.state > states.OPENED || this.#sending)
      fail('InvalidStateError', 'withCredentials can be set only before send()');
    this.#hasCredentials = Boolean(isOn);
  }

  get responseType(): string {
    return this.#answer.type;
  }
  set responseType(type: string) {
    this.#answer.setType(String(type));
  }

  overrideMimeType(mime: string): void {
    this.#answer.override(String(mime));
  }

  get status(): number {
    return this.#answer.received.response?.status ?? 0;
  }

  get statusText(): string {
    return this.#answer.received.response?.statusText ?? '';
  }

  get responseURL(): string {
    return this.#answer.received.response?.url.replace(/#.*$/, '') ?? '';
  }

  getResponseHeader(name: string): string | null {
    const text = String(name);
    return isToken(text) ? (this.#answer.received.response?.headers.get(text) ?? null) : null;
  }

  getAllResponseHeaders(): string {
    const lines = [...(this.#answer.received.response?.headers ?? [])].map(
      ([name, value]) => `${name}: ${value}\r\n`,
    );
    return lines.join('');
  }

  get responseText(): string {
    return this.#answer.text();
  }

  get responseXML(): Document | null {
    return this.#answer.document();
  }

  get response(): unknown {
    return this.#answer.whole();
  }
}

defineHandlers(XMLHttpRequest.prototype, ['readystatechange']);
defineConstants(XMLHttpRequest, states);
showMembers(XMLHttpRequest, 'XMLHttpRequest');
