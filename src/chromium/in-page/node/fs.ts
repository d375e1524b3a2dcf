/* What tests ask of Node's `fs`: to read files of the project, which its server has. A test writes nothing. */

import { filesPath } from '../../told';

// Kept before a subject's network takes their place.
const { XMLHttpRequest } = globalThis;
const open = XMLHttpRequest.prototype.open;
const send = XMLHttpRequest.prototype.send;

/** Asks at once, as Node does. */
export function askNow(method: 'GET' | 'PUT', address: string, text?: string): XMLHttpRequest {
  const request = new XMLHttpRequest();
  open.call(request, method, address, false);
  request.overrideMimeType('text/plain; charset=x-user-defined');
  send.call(request, text);
  return request;
}

const addressOf = (path: string | URL): string =>
  `${filesPath}?path=${encodeURIComponent(String(path).replace(/^file:\/\//, ''))}`;

const bytesOf = ({ responseText }: XMLHttpRequest): Uint8Array =>
  Uint8Array.from(responseText, (letter) => letter.charCodeAt(0) & 0xff);

export const textOf = (request: XMLHttpRequest): string => new TextDecoder().decode(bytesOf(request));

/** @throws where there is no such file, or it is outside of the project */
export function readFileSync(path: string | URL, how?: string | { readonly encoding?: string }): unknown {
  const request = askNow('GET', addressOf(path));
  if (request.status !== 200) {
    const failure = new Error(`ENOENT: no such file or directory, open '${String(path)}'`);
    throw Object.assign(failure, { code: 'ENOENT', path: String(path) });
  }
  return (typeof how === 'string' ? how : how?.encoding) ? textOf(request) : bytesOf(request);
}
export const existsSync = (path: string | URL): boolean => askNow('GET', addressOf(path)).status === 200;
/** Only what the library itself keeps of a project. @throws where it was not taken */
export function keepText(path: string, text: string): void {
  const { status } = askNow('PUT', addressOf(path), text);
  if (status !== 204) throw Object.assign(new Error(`${path} was not written`), { code: 'EACCES', path });
}
const promised = {
  readFile: (...given: Parameters<typeof readFileSync>) =>
    Promise.resolve().then(() => readFileSync(...given)),
};
export const promises = promised;
export const { readFile } = promised;
export default { readFileSync, existsSync, promises };
