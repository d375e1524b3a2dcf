import { home, request, shown, textOf, throwing } from './shared.mjs';

export function requestCases() {
  const cases = {};
  for (const method of ['get', 'Get', 'post', 'put', 'delete', 'PATCH'])
    cases[`method ${method}`] = async () => {
      const { sent } = await request({ method, url: '/echo', type: 'json', body: 'x' });
      return [sent.status, sent.response?.method, sent.response?.body];
    };
  for (const method of ['GET ', 'G(T', '', 'ö', 'CONNECT', 'trace', 'TRACK', 'Foo'])
    cases[`open with the method "${method}"`] = () =>
      throwing(() => new XMLHttpRequest().open(method, '/echo'));
  for (const url of ['http://', '//', 'http://[', '/echo', '', '?a', '#b'])
    cases[`open the address "${url}"`] = () => throwing(() => new XMLHttpRequest().open('GET', url));
  for (const [name, value] of [
    ['x-a', 'b'],
    ['X-A', ' b \t'],
    ['x-a', ''],
    ['x a', 'b'],
    ['', 'b'],
    ['x-a', 'b\nc'],
    ['x-a', 'ö'],
    ['x-a', '🐝'],
    ['x:', 'b'],
  ])
    cases[`set the header ${JSON.stringify(name)} to ${JSON.stringify(value)}`] = async () => {
      const tried = {};
      const { sent } = await request({
        url: '/echo',
        type: 'json',
        prepare: (one) => (tried.outcome = throwing(() => one.setRequestHeader(name, value))),
      });
      return [tried.outcome, value === 'ö' ? '' : sent.response.headers['x-a']];
    };
  for (const name of [
    'Accept-Charset',
    'Accept-Encoding',
    'Access-Control-Request-Headers',
    'Connection',
    'Content-Length',
    'Cookie',
    'Date',
    'DNT',
    'Expect',
    'Host',
    'Keep-Alive',
    'Origin',
    'Referer',
    'Set-Cookie',
    'TE',
    'Trailer',
    'Transfer-Encoding',
    'Upgrade',
    'Via',
    'Proxy-Yard',
    'Sec-Yard',
  ])
    cases[`the header ${name} cannot be set`] = async () => {
      let outcome;
      const prepare = (one) => (outcome = throwing(() => one.setRequestHeader(name, 'yard-7')));
      const { sent } = await request({ url: '/echo', type: 'json', prepare });
      return [outcome, JSON.stringify(sent.response.headers).includes('yard-7')];
    };
  cases['a header set twice'] = async () => {
    const prepare = (one) => {
      one.setRequestHeader('x-a', 'b');
      one.setRequestHeader('X-A', 'c');
    };
    return (await request({ url: '/echo', type: 'json', prepare })).sent.response.headers;
  };
  cases['headers are forgotten when it is opened again'] = async () => {
    const prepare = (one) => {
      one.setRequestHeader('x-a', 'b');
      one.open('GET', '/echo');
      one.responseType = 'json';
    };
    return (await request({ url: '/echo', prepare })).sent.response.headers;
  };
  for (const [name, make] of Object.entries({
    text: () => 'ö',
    URLSearchParams: () => new URLSearchParams({ a: '1 2' }),
    Blob: () => new Blob(['abc'], { type: 'text/csv' }),
    'Blob without a type': () => new Blob(['abc']),
    File: () => new File(['abc'], 'a.txt', { type: 'text/plain' }),
    ArrayBuffer: () => new Uint8Array([97, 98]).buffer,
    view: () => new Uint8Array([96, 97, 98, 99]).subarray(1, 3),
    number: () => 7,
    object: () => ({}),
    document: () => new DOMParser().parseFromString('<a/>', 'application/xml'),
    null: () => null,
    undefined: () => undefined,
    FormData: () => {
      const form = new FormData();
      form.append('name', 'a\nb');
      form.append('file', new File(['bytes'], 'a "b".txt', { type: 'text/plain' }));
      return form;
    },
  })) {
    cases[`a body: ${name}`] = async () => {
      const { sent } = await request({ method: 'POST', url: '/echo', type: 'json', body: make() });
      return [sent.response.headers['content-type'], sent.response.body];
    };
    if (name !== 'FormData')
      cases[`a body: ${name}, with a type of its own`] = async () => {
        const prepare = (one) => one.setRequestHeader('Content-Type', 'text/x-yard;charset=latin1');
        const { sent } = await request({ method: 'POST', url: '/echo', type: 'json', body: make(), prepare });
        return sent.response.headers['content-type'].toLowerCase().replace(/; /, ';');
      };
  }
  cases['a body of a GET is not sent'] = async () =>
    (await request({ url: '/echo', type: 'json', body: 'x' })).sent.response.body;
  cases['what is accepted'] = async () => {
    const own = await request({
      url: '/echo',
      type: 'json',
      prepare: (one) => one.setRequestHeader('accept', 'a/b'),
    });
    return [
      own.sent.response.headers.accept,
      (await request({ url: '/echo', type: 'json' })).sent.response.headers.accept,
    ];
  };
  for (const type of ['', 'text', 'json', 'arraybuffer', 'blob', 'document', 'yard'])
    for (const path of [
      'json',
      'text',
      'bytes',
      'html',
      'xml',
      'bad-xml',
      'bad-json',
      'nothing',
      'empty',
      'latin1',
      'bom',
      'svg',
      'no-type',
    ])
      cases[`/${path} as "${type}"`] = async () => {
        const { sent } = await request({ url: `/${path}`, type });
        return [
          sent.responseType,
          textOf(sent.response),
          throwing(() => sent.responseText),
          throwing(() => textOf(sent.responseXML)),
          sent.response === sent.response,
        ];
      };
  for (const mime of ['text/plain; charset=iso-8859-1', 'application/xml', 'nonsense', 'text/html'])
    cases[`read as ${mime}`] = async () => {
      const prepare = (one) => one.overrideMimeType(mime);
      const { sent } = await request({ url: '/latin1', prepare });
      return [sent.responseText, sent.responseXML?.contentType];
    };
  for (const status of [200, 201, 203, 204, 205, 304, 400, 404, 418, 500, 503, 599])
    cases[`the status ${status}`] = async () => {
      const { sent, heard } = await request({ url: `/status/${status}` });
      return [sent.status, sent.statusText, sent.responseText, heard];
    };
  cases['a failure with problem details'] = async () => {
    const { sent } = await request({ url: '/fail/422', type: 'json' });
    return [sent.status, sent.statusText, sent.response, sent.getResponseHeader('Content-Type')];
  };
  return cases;
}

export function heardCases() {
  const cases = {};
  for (const [name, options] of Object.entries({
    data: { url: '/text' },
    'no body': { url: '/empty' },
    'an empty body': { url: '/nothing' },
    chunks: { url: '/chunks' },
    'a body that breaks off': { url: '/breaks-off' },
    'a broken connection': { url: '/broken' },
    'an upload': { method: 'POST', url: '/echo', body: 'x', uploads: true },
    'an upload without a body': { method: 'POST', url: '/echo', uploads: true },
    'an upload that nobody listens to': { method: 'POST', url: '/echo', body: 'x' },
    'an abort at once': { url: '/never', during: (sent) => sent.abort() },
    'an abort of an upload': {
      method: 'POST',
      url: '/never',
      body: 'x',
      during: (sent) => setTimeout(() => sent.abort(), 20),
    },
    'an abort before it is sent': { url: '/text', prepare: (sent) => sent.abort() },
    'a time-out': { url: '/never', prepare: (sent) => (sent.timeout = 20) },
    'a time-out that is long enough': { url: '/text', prepare: (sent) => (sent.timeout = 2000) },
    'a time-out set late': { url: '/never', during: (sent) => (sent.timeout = 20) },
    'opened again while it is under way': {
      url: '/never',
      during: (sent) => (sent.open('GET', '/text'), sent.send()),
    },
    'a redirect': { url: '/redirect/302?to=/text' },
  }))
    cases[`what is heard of ${name}`] = async () => {
      const { sent, heard } = await request(options);
      return [
        heard,
        sent.readyState,
        sent.status,
        sent.statusText,
        sent.responseText,
        home(sent.responseURL),
      ];
    };
  cases['an abort when it is over'] = async () => {
    const { sent, heard } = await request({ url: '/text' });
    sent.abort();
    return [heard, sent.readyState, sent.status, sent.responseText];
  };
  cases['an abort by a listener of the first event'] = async () => {
    let over;
    const prepare = (sent) => sent.addEventListener('loadstart', () => ((over = true), sent.abort()));
    const { sent, heard } = await request({ url: '/text', prepare });
    return [over, heard, sent.readyState];
  };
  cases['the last progress'] = async () => {
    let last;
    const prepare = (sent) => sent.addEventListener('progress', ({ loaded }) => (last = loaded));
    await request({ url: '/text', prepare });
    return last;
  };
  for (const [name, work] of Object.entries({
    'send()': (sent) => sent.send(),
    'setRequestHeader()': (sent) => sent.setRequestHeader('a', 'b'),
    'abort()': (sent) => sent.abort(),
    'the headers': (sent) => [sent.getAllResponseHeaders(), sent.getResponseHeader('a')],
    'the response': (sent) => [
      sent.response,
      sent.responseText,
      sent.responseXML,
      sent.responseURL,
      sent.status,
    ],
    withCredentials: (sent) => (sent.withCredentials = true),
    responseType: (sent) => (sent.responseType = 'json'),
    'overrideMimeType()': (sent) => sent.overrideMimeType('a/b'),
    timeout: (sent) => (sent.timeout = 5),
  })) {
    cases[`${name} before it is opened`] = () => throwing(() => work(new XMLHttpRequest()));
    cases[`${name} while it is under way`] = async () => {
      let outcome;
      await request({
        url: '/text',
        during: (sent) => (outcome = throwing(() => work(sent))),
      });
      return outcome;
    };
    if (name !== 'send()')
      cases[`${name} when it is over`] = async () => {
        const { sent } = await request({ url: '/empty' });
        return throwing(() => work(sent)).gave === undefined ? throwing(() => work(sent)) : 'something';
      };
  }
  cases['the headers of a response'] = async () => {
    const { sent } = await request({ url: '/headers' });
    return [
      shown(sent.getAllResponseHeaders()),
      ...['x-yard', 'X-YARD', 'x-list', 'set-cookie', 'x-none', ''].map((name) =>
        sent.getResponseHeader(name),
      ),
    ];
  };
  cases['constants'] = () => [
    XMLHttpRequest.DONE,
    new XMLHttpRequest().HEADERS_RECEIVED,
    XMLHttpRequest.UNSENT,
    String(new XMLHttpRequest()),
  ];
  cases['an attribute for events'] = async () => {
    const heard = [];
    const sent = new XMLHttpRequest();
    sent.addEventListener('load', () => heard.push('first'));
    sent.onload = () => heard.push('replaced');
    sent.addEventListener('load', () => heard.push('last'));
    sent.onload = () => heard.push('attribute');
    sent.onerror = 'no function';
    sent.open('GET', '/text');
    const over = new Promise((resolve) => (sent.onloadend = resolve));
    sent.send();
    await over;
    return [heard, sent.onerror, typeof sent.onload, sent.ontimeout];
  };
  cases['the classes'] = () => [
    new XMLHttpRequest() instanceof EventTarget,
    new XMLHttpRequest().upload instanceof XMLHttpRequestEventTarget,
    XMLHttpRequest.name,
    Object.prototype.toString.call(new XMLHttpRequest().upload),
  ];
  return cases;
}
