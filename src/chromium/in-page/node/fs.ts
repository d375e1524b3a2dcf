/* What tests ask of Node's `fs`: to read files of the project, which its server has. Nothing is written. */

import { filesPath } from '../../told';

// Kept before a subject's network takes their place.
const { XMLHttpRequest } = globalThis;
const open = XMLHttpRequest.prototype.open;
const send = XMLHttpRequest.prototype.send;

function ask(path: string | URL): XMLHttpRequest {
  const request = new XMLHttpRequest();
  const name = String(path).replace(/^file:\/\//, '');
  open.call(request, 'GET', `${filesPath}?path=${encodeURIComponent(name)}`, false);
  request.overrideMimeType('text/plain; charset=x-user-defined');
  send.call(request);
  return request;
}

/** @throws where there is no such file, or it is outside of the project */
export function readFileSync(path: string | URL, how?: string | { readonly encoding?: string }): unknown {
  const request = ask(path);
  if (request.status !== 200) {
    const failure = new Error(`ENOENT: no such file or directory, open '${String(path)}'`);
    throw Object.assign(failure, { code: 'ENOENT', path: String(path) });
  }
  const bytes = Uint8Array.from(request.responseText, (letter) => letter.charCodeAt(0) & 0xff);
  return (typeof how === 'string' ? how : how?.encoding) ? new TextDecoder().decode(bytes) : bytes;
}
export const existsSync = (path: string | URL): boolean => ask(path).status === 200;
const promised = {
  readFile: (...given: Parameters<typeof readFileSync>) =>
    Promise.resolve().then(() => readFileSync(...given)),
};
export const promises = promised;
export const { readFile } = promised;
export default { readFileSync, existsSync, promises };
