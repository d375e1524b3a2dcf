/* What a page can observe of each carrier. Every case returns plain data, and runs in a page with our network, in
   one with the browser's own and a server, and in a simulated page. */

export const throwing = (work) => {
  try {
    return { gave: work() };
  } catch (error) {
    return error.name;
  }
};
export const settled = async (work) => {
  try {
    return { gave: await work() };
  } catch (error) {
    return error.name;
  }
};
const base = () => document.baseURI;
export const home = (text) =>
  String(text).replaceAll(new URL(base()).origin, 'HOME').replaceAll(new URL(base()).host, 'HOST');
const wait = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
export const shown = (headers) =>
  String(headers)
    .split('\r\n')
    .filter(
      (line) =>
        line && !/^(date|connection|keep-alive|transfer-encoding|content-length|accept-ranges):/.test(line),
    );

const types = ['readystatechange', 'loadstart', 'progress', 'abort', 'error', 'load', 'timeout', 'loadend'];

/** Sends a request, and notes what is heard. */
export function request({
  method = 'GET',
  url,
  body,
  type,
  prepare,
  during,
  uploads = false,
  most = 10_000,
}) {
  const sent = new XMLHttpRequest();
  const heard = [];
  const note = (one) => heard.at(-1) === one || one === 'progress 3' || heard.push(one);
  for (const name of types) sent.addEventListener(name, () => note(`${name} ${sent.readyState}`));
  if (uploads)
    for (const name of types.slice(1)) sent.upload.addEventListener(name, () => note(`upload ${name}`));
  sent.open(method, url);
  if (type !== undefined) sent.responseType = type;
  prepare?.(sent);
  const over = new Promise((resolve) => sent.addEventListener('loadend', () => resolve()));
  sent.send(body);
  during?.(sent, note);
  return Promise.race([over, wait(most)]).then(() => ({
    sent,
    heard: heard.filter((one) => one !== 'progress 3'),
  }));
}

export const textOf = (value) => {
  if (value === null || value === undefined || typeof value === 'string') return value;
  if (value instanceof ArrayBuffer) return ['ArrayBuffer', ...new Uint8Array(value)];
  if (value instanceof Blob) return ['Blob', value.type, value.size];
  if (value instanceof Document) return ['Document', value.contentType, value.documentElement.outerHTML];
  return value;
};
