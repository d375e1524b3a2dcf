import { readMime } from './headers';
import { Received } from './received';
import { makeException } from './targets';

export const states = { UNSENT: 0, OPENED: 1, HEADERS_RECEIVED: 2, LOADING: 3, DONE: 4 };
const types = ['', 'arraybuffer', 'blob', 'document', 'json', 'text'];

/** @throws the page's own error, by the name the standard gives it */
export function fail(name: string, message: string): never {
  throw makeException(name, message);
}

/** How far an XMLHttpRequest is, and what there is to read of its response. @see https://xhr.spec.whatwg.org/#response */
export class Answer {
  state = states.UNSENT;
  received = new Received();
  /** What the response is to be read as. */
  type = '';
  /** The MIME type it is read as, whatever the response says. */
  mime: string | undefined;

  setType(type: string): void {
    this.#refuseLate('responseType can be set');
    if (types.includes(type)) this.type = type;
  }

  override(mime: string): void {
    this.#refuseLate('overrideMimeType() is possible');
    this.mime = readMime(mime) ? mime : 'application/octet-stream';
    this.received.override(this.mime);
  }

  #refuseLate(what: string): void {
    if (this.state >= states.LOADING) fail('InvalidStateError', `${what} only before the body arrives`);
  }

  text(): string {
    if (this.type !== '' && this.type !== 'text') this.#refuse('responseText', 'text');
    return this.state >= states.LOADING ? this.received.text() : '';
  }

  document(): Document | null {
    if (this.type !== '' && this.type !== 'document') this.#refuse('responseXML', 'document');
    return this.state === states.DONE ? this.received.document(this.type === 'document') : null;
  }

  #refuse(member: string, type: string): never {
    return fail('InvalidStateError', `${member} needs the responseType "${type}", not "${this.type}"`);
  }

  whole(): unknown {
    if (this.type === '' || this.type === 'text') return this.text();
    return this.state === states.DONE ? this.received.as(this.type) : null;
  }
}
