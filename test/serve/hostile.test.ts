/** @jest-environment node */
import { once } from 'node:events';
import { connect } from 'node:net';
import { hold } from 'simulacra';
import { serve, type Served } from 'simulacra/serve';
import { hives } from '../../examples/shared/hive';
import { start } from './serving';

/** What a server says to bytes that are sent as they are. */
async function sendRaw({ url }: Served, bytes: string): Promise<string> {
  const { port, hostname } = new URL(url);
  const socket = connect(Number(port), hostname);
  socket.on('error', () => undefined);
  let said = '';
  socket.on('data', (part) => (said += String(part)));
  socket.write(bytes);
  await once(socket, 'close');
  return said;
}

describe('what nobody should send', () => {
  const routes = { 'GET /api/hives': hives, 'POST /api/hives': { id: 'h9' } };

  it.each([
    ['a path that climbs', 'GET /api/../../secret HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n', '400'],
    [
      'a path that climbs in disguise',
      'GET /api/%2e%2e%2fsecret HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n',
      '400',
    ],
    ['a path of half a letter', 'GET /api/%E0%A4 HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n', '400'],
    [
      'an address too long',
      `GET /${'a'.repeat(9000)} HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n`,
      '414',
    ],
    ['headers too long', `GET / HTTP/1.1\r\nHost: x\r\nA: ${'a'.repeat(20000)}\r\n\r\n`, '431'],
    ['no HTTP', 'buzz\r\n\r\n', '400'],
    ['a host that is none', 'GET /api/hives HTTP/1.1\r\nHost: a b c\r\nConnection: close\r\n\r\n', '200'],
    [
      'a handshake that climbs',
      'GET /../live HTTP/1.1\r\nHost: x\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n\r\n',
      '400',
    ],
    [
      'a handshake without a key',
      'GET /api/hives HTTP/1.1\r\nHost: x\r\nConnection: Upgrade\r\nUpgrade: websocket\r\n\r\n',
      '404',
    ],
    [
      'a switch from elsewhere',
      'PUT /__simulacra/routes HTTP/1.1\r\nHost: localhost\r\nOrigin: https://elsewhere.example\r\nConnection: close\r\nContent-Length: 16\r\n\r\n{"state":"held"}',
      '403',
    ],
    [
      'a switch by another name',
      'GET /__simulacra/routes HTTP/1.1\r\nHost: elsewhere.example\r\nConnection: close\r\n\r\n',
      '403',
    ],
    [
      'one who listens by another name',
      'GET /__simulacra/events HTTP/1.1\r\nHost: elsewhere.example\r\nConnection: close\r\n\r\n',
      '403',
    ],
    [
      'a switch that is no JSON',
      'PUT /__simulacra/routes HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\nContent-Length: 4\r\n\r\nheld',
      '400',
    ],
  ])('%s is answered, and the server goes on', async (_, bytes, status) => {
    const { served, ask } = await start({ network: routes });
    expect((await sendRaw(served, bytes)).slice(9, 12)).toBe(status);
    expect((await ask('GET /api/hives')).status).toBe(200);
    expect(served.routes.every(({ state }) => state === 'data')).toBe(true);
  });

  it('clients that hang up half-way do no harm', async () => {
    const { served, ask } = await start({ network: { ...routes, 'GET /api/slow': hold() } });
    const { port, hostname } = new URL(served.url);
    const starts = [
      'GET /api/slow HTTP/1.1\r\nHost: x\r\n\r\n',
      'POST /api/hives HTTP/1.1\r\nHost: x\r\nContent-Length: 99\r\n\r\n{"na',
      'GET /__simulacra/events HTTP/1.1\r\nHost: x\r\n\r\n',
    ];
    for (const begin of [...starts, ...starts]) {
      const socket = connect(Number(port), hostname).on('error', () => undefined);
      await once(socket, 'connect');
      socket.write(begin);
      await new Promise((resolve) => setTimeout(resolve, 20));
      socket.resetAndDestroy();
    }
    expect((await ask('GET /api/hives')).body).toEqual(hives);
  });

  it('a port that is taken, and one that is none', async () => {
    const { served } = await start({ network: routes });
    const port = Number(new URL(served.url).port);
    await expect(serve({ network: routes, port })).rejects.toMatchObject({ code: 'SIM-SERVE-PORT' });
    await expect(serve({ network: routes, port: 70_000 })).rejects.toMatchObject({ code: 'SIM-SERVE-PORT' });
    await expect(serve({ network: { 'GTE /api/hives': [] } as object })).rejects.toMatchObject({
      code: 'SIM-ROUTE-SYNTAX',
    });
    expect((await fetch(`${served.url}/api/hives`)).status).toBe(200);
  });
});
