import { fail } from '../../../src/core/answers';
import { channel } from '../../../src/core/channel';
import { hold } from '../../../src/core/hold';
import { stream } from '../../../src/core/stream';
import { eventTexts } from './events.mjs';

const bodyless = [204, 205, 304];
const respond = (body, headers = {}, init = {}) => new Response(body, { ...init, headers });
const bytes = (...values) => new Uint8Array(values);

async function echo(request) {
  const url = new URL(request.url);
  const headers = Object.fromEntries(
    [...request.headers].filter(([name]) => /^(content-type|accept$|authorization|range|x-)/.test(name)),
  );
  const { method } = request;
  const text = /^(GET|HEAD)$/.test(method) ? '' : await request.text();
  // Whoever makes a form chooses what stands between its parts.
  const boundary = /boundary=(.*)$/.exec(headers['content-type'] ?? '')?.[1];
  const plain = (one) => (boundary ? one.replaceAll(boundary, 'BOUNDARY') : one);
  if (boundary) headers['content-type'] = plain(headers['content-type']);
  // The names of these headers come as they were written, or in small letters.
  const body = plain(text).replace(/content-(disposition|type):/gi, (name) => name.toLowerCase());
  return { method, path: url.pathname, query: url.search, headers, body };
}

const redirect = (request, { status }) => {
  const to = new URL(request.url).searchParams.get('to');
  return respond(null, to === null ? {} : { location: to }, { status: Number(status) });
};

function converse(connection) {
  connection.listen((message) => {
    const [what, ...rest] = typeof message === 'string' ? message.split(' ') : [];
    if (what === 'close') connection.close(Number(rest[0]), rest.slice(1).join(' '));
    else if (what === 'fail') connection.fail();
    else if (what === 'bytes') connection.send(bytes(1, 2, 255));
    else if (what === 'json') connection.send({ a: [1, null] });
    else if (what === 'many') for (const one of 'abc') connection.send(one);
    else if (what === 'protocols') connection.send(connection.protocols.join(' '));
    else connection.send(message);
  });
}

/** A body that is sent bit by bit, once somebody reads it. */
function streaming(send) {
  const chunks = stream();
  const begin = () => (chunks.listeners > 0 ? void send(chunks) : setTimeout(begin, 2));
  begin();
  return chunks;
}

const endingStream = () =>
  streaming(async (chunks) => {
    for (const chunk of ['one,', ' two,', ' three']) await chunks.emit(chunk);
    await chunks.end();
  });

const breakingStream = () =>
  streaming(async (chunks) => {
    await chunks.emit('one,');
    await new Promise((resolve) => setTimeout(resolve, 30));
    await chunks.fail();
  });

/** What is answered in a page and by the server alike. */
export function makeRoutes() {
  const each = (path, answer) =>
    Object.fromEntries(
      ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'].map((method) => [`${method} ${path}`, answer]),
    );
  return {
    ...each('/echo', echo),
    ...each('/redirect/:status', redirect),
    'HEAD /echo': () => respond(null, { 'x-yard': 'north' }),
    'GET /json': { a: 1, list: [1, null, 'ö'] },
    'GET /bad-json': () => respond('{"a":', { 'content-type': 'application/json' }),
    'GET /text': () => respond('plain ö', { 'content-type': 'text/plain;charset=UTF-8' }),
    'GET /empty': undefined,
    'GET /nothing': () => respond('', { 'content-type': 'text/plain' }),
    'GET /bytes': () => respond(bytes(0, 1, 200, 255), { 'content-type': 'application/octet-stream' }),
    'GET /latin1': () =>
      respond(bytes(0x66, 0xfc, 0x72), { 'content-type': 'text/plain; charset=iso-8859-1' }),
    'GET /bom': () => respond(bytes(0xef, 0xbb, 0xbf, 0x7b, 0x7d), { 'content-type': 'application/json' }),
    'GET /html': () => respond('<p id="a">hi</p>', { 'content-type': 'text/html' }),
    'GET /xml': () => respond('<yard><hive id="h1"/></yard>', { 'content-type': 'application/xml' }),
    'GET /svg': () =>
      respond('<svg xmlns="http://www.w3.org/2000/svg"/>', { 'content-type': 'image/svg+xml' }),
    'GET /bad-xml': () => respond('<yard><hive></yard>', { 'content-type': 'text/xml' }),
    'GET /no-type': () => respond(bytes(0x61, 0x62)),
    'GET /headers': () => {
      const response = respond('x', { 'X-Yard': 'north', 'x-list': 'a', 'content-type': 'text/plain' });
      response.headers.append('x-list', 'b');
      response.headers.append('set-cookie', 'seen=yes; Path=/');
      response.headers.append('set-cookie', 'secret=no; Path=/; HttpOnly');
      return response;
    },
    'GET /status/:status': (_, { status }) =>
      respond(
        bodyless.includes(Number(status)) ? null : 'body',
        {},
        { status: Number(status), statusText: `Word ${status}` },
      ),
    'GET /fail/:status': (_, { status }) => fail(Number(status), { detail: 'no bees' }),
    'GET /broken': fail(),
    'GET /never': hold(),
    'POST /never': hold(),
    'GET /chunks': endingStream,
    'GET /breaks-off': breakingStream,
    'GET /etag': () => respond('version 7', { etag: '"7"', 'content-type': 'text/plain' }),
    'GET /file': () => new Blob(['0123456789'], { type: 'text/csv' }),
    'GET /events/:name': (_, { name }) => respond(eventTexts[name], { 'content-type': 'text/event-stream' }),
    'GET /live': channel(),
    'WS /converse': converse,
    'WS /refused': fail(),
    'WS /greets': (connection) => void connection.send('welcome'),
    'WS /hives/:id': (connection, { id }) => void connection.send(id),
  };
}
