import { eventTexts } from './events.mjs';
import { home, textOf, throwing } from './shared.mjs';

/** Talks by a socket: sends each text once there is an answer to the one before, and notes what is heard. */
function talk(url, texts = [], { protocols, prepare, during, last = 'close' } = {}) {
  const socket = protocols === undefined ? new WebSocket(url) : new WebSocket(url, protocols);
  const heard = [];
  prepare?.(socket);
  const next = () => {
    if (texts.length > 0) socket.send(texts.shift());
  };
  return new Promise((resolve) => {
    const over = () => resolve({ heard, socket });
    socket.onopen = () => {
      heard.push(`open ${socket.readyState} ${socket.protocol}`);
      during?.(socket);
      next();
    };
    socket.onmessage = async ({ data, origin, lastEventId }) => {
      const value = data instanceof Blob ? ['Blob', data.size, data.type] : textOf(data);
      heard.push(['message', value, home(origin), lastEventId]);
      if (last === 'message' && texts.length === 0) over();
      else next();
    };
    socket.onerror = () => heard.push(`error ${socket.readyState}`);
    socket.onclose = ({ code, reason, wasClean }) => {
      heard.push(['close', code, reason, wasClean, socket.readyState]);
      over();
    };
    setTimeout(over, 10_000);
  }).finally(() => socket.close());
}

export function socketCases() {
  const cases = {};
  for (const url of [
    '/converse',
    'ws://localhost:1/#a',
    'http://localhost:1/',
    'https://localhost:1/',
    'ftp://yard/',
    'ws://',
    'about:blank',
  ])
    cases[`a socket to ${url}`] = () =>
      throwing(() => {
        const socket = new WebSocket(url);
        const { readyState, url: made, protocol, extensions, binaryType, bufferedAmount } = socket;
        socket.onerror = socket.onclose = null;
        socket.close();
        return [readyState, home(made), protocol, extensions, binaryType, bufferedAmount, socket.readyState];
      });
  for (const protocols of [[], ['a'], ['a', 'b'], 'a', ['a', 'a'], ['a', 'A'], ['a b'], [''], ['a,b']])
    cases[`the protocols ${JSON.stringify(protocols)}`] = async () => {
      const outcome = throwing(() => new WebSocket('/converse', protocols).close());
      if (typeof outcome === 'string') return outcome;
      return (await talk('/converse', ['protocols', 'close 1000'], { protocols })).heard;
    };
  for (const text of ['hello', '', 'ö 🐝', 'bytes', 'json', 'many'])
    cases[`is told "${text}"`] = async () => (await talk('/converse', [text, 'close 1000 done'])).heard;
  cases['is told bytes as a buffer'] = async () =>
    (
      await talk('/converse', ['bytes'], {
        last: 'message',
        prepare: (socket) => (socket.binaryType = 'arraybuffer'),
      })
    ).heard;
  for (const [name, make] of Object.entries({
    'a buffer': () => new Uint8Array([1, 2]).buffer,
    'a view': () => new Uint8Array([0, 1, 2]).subarray(1),
    'a blob': () => new Blob(['ab']),
    'a number': () => 7,
  }))
    cases[`sends ${name}`] = async () =>
      (
        await talk('/converse', [make()], {
          last: 'message',
          prepare: (socket) => (socket.binaryType = 'arraybuffer'),
        })
      ).heard;
  for (const close of ['1000 bye', '1001', '3000 x', '4999', '1011 failed'])
    cases[`is closed by the server with ${close}`] = async () =>
      (await talk('/converse', [`close ${close}`])).heard;
  cases['breaks'] = async () => (await talk('/converse', ['fail'])).heard;
  cases['is refused'] = async () => (await talk('/refused')).heard;
  cases['is greeted'] = async () => (await talk('/greets', [], { last: 'message' })).heard;
  cases['has a parameter in its address'] = async () =>
    (await talk('/hives/h%201?x=1', [], { last: 'message' })).heard;
  for (const args of [
    [],
    [1000],
    [1000, 'bye'],
    [3000],
    [4999, 'ö'],
    [999],
    [1001],
    [2999],
    [5000],
    [1000, 'x'.repeat(123)],
    [1000, 'x'.repeat(124)],
    [undefined, 'why'],
  ])
    cases[`close(${JSON.stringify(args).slice(1, -1).slice(0, 20)}${args[1]?.length ?? ''})`] = async () => {
      let outcome;
      const during = (socket) => {
        outcome = throwing(() => socket.close(...args));
        if (typeof outcome === 'string') socket.close();
        else outcome = socket.readyState;
      };
      return [outcome, (await talk('/converse', [], { during })).heard];
    };
  cases['close() before it is open'] = async () => {
    const { heard } = await talk('/converse', [], { prepare: (socket) => socket.close() });
    return heard;
  };
  cases['send() before it is open'] = () => {
    const socket = new WebSocket('/converse');
    const outcome = throwing(() => socket.send('x'));
    socket.close();
    return outcome;
  };
  cases['send() when it is closed'] = async () => {
    const { socket } = await talk('/converse', ['close 1000']);
    return [throwing(() => socket.send('xyz')), socket.bufferedAmount, socket.readyState];
  };
  cases['what is buffered'] = async () => {
    let at;
    const during = (socket) => {
      socket.send('abc');
      at = socket.bufferedAmount;
    };
    const { socket } = await talk('/converse', [], { during, last: 'message' });
    return [at, socket.bufferedAmount];
  };
  cases['binaryType'] = () => {
    const socket = new WebSocket('/converse');
    const kinds = ['arraybuffer', 'blob', 'yard'].map(
      (kind) => ((socket.binaryType = kind), socket.binaryType),
    );
    socket.close();
    return kinds;
  };
  cases['constants of a socket'] = () => [
    WebSocket.CONNECTING,
    WebSocket.OPEN,
    WebSocket.CLOSING,
    WebSocket.CLOSED,
    WebSocket.name,
  ];
  return cases;
}

export function eventCases() {
  const cases = {};
  const follow = (url, names = ['frost'], most = 10_000) =>
    new Promise((resolve) => {
      const source = new EventSource(url);
      const heard = [];
      const note = ({ type, data, lastEventId, origin }) =>
        heard.push([type, data, lastEventId, home(origin)]);
      for (const name of ['message', ...names]) source.addEventListener(name, note);
      source.onopen = () => heard.push(`open ${source.readyState}`);
      const over = () => {
        source.close();
        resolve(heard);
      };
      source.onerror = () => {
        heard.push(`error ${source.readyState}`);
        over();
      };
      setTimeout(over, most);
    });
  for (const name of Object.keys(eventTexts)) cases[`events: ${name}`] = () => follow(`/events/${name}`);
  for (const path of ['/json', '/text', '/empty', '/status/500', '/status/201', '/broken'])
    if (path !== '/json') cases[`events from ${path}`] = () => follow(path);
  for (const url of ['/live', 'http://[', 'ftp://yard/'])
    cases[`an EventSource of ${url}`] = () =>
      throwing(() => {
        const source = new EventSource(url, { withCredentials: true });
        const { readyState, url: made, withCredentials } = source;
        source.close();
        return [
          readyState,
          home(made),
          withCredentials,
          source.readyState,
          EventSource.CLOSED,
          EventSource.name,
        ];
      });
  return cases;
}
