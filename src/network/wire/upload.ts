import { Target } from './page';
import { defineHandlers, showMembers } from './targets';

export class XMLHttpRequestEventTarget extends Target {}
defineHandlers(XMLHttpRequestEventTarget.prototype, [
  ...['loadstart', 'progress', 'abort', 'error', 'load', 'timeout', 'loadend'],
]);

const heard = new WeakSet<object>();

export class XMLHttpRequestUpload extends XMLHttpRequestEventTarget {
  override addEventListener(...args: Parameters<EventTarget['addEventListener']>): void {
    heard.add(this);
    super.addEventListener(...args);
  }
}
showMembers(XMLHttpRequestUpload, 'XMLHttpRequestUpload');

/** True where somebody listens to an upload that begins now. */
export const isHeard = (upload: XMLHttpRequestUpload): boolean => heard.has(upload);
