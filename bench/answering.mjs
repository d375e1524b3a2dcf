import { realFetch } from './page.mjs';
import { createServer } from 'node:http';
import { once } from 'node:events';
import { isolate } from 'simulacra/react';
import { takeDown } from 'simulacra';
import { createElement as h } from 'react';
import { compare } from './measure.mjs';

const hive = { id: 'h1', name: 'Anemone', weight: 31.2 };

export async function answering() {
  const server = createServer((_, response) => {
    response.writeHead(200, { 'content-type': 'application/json' });
    response.end(JSON.stringify(hive));
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const address = `http://127.0.0.1:${server.address().port}/api/hives/h1`;
  await isolate(() => h('p'), { network: { 'GET /api/hives/:id': hive } });
  const result = await compare({
    ours: async () => (await fetch('/api/hives/h1')).json(),
    floor: async () => (await realFetch(address)).json(),
    rounds: 600,
  });
  await takeDown();
  server.close();
  server.closeAllConnections();
  const why =
    'one standard Request, one Response and the reading of its body, which a component is owed, are half of what ours takes.';
  return [{ name: 'a request answered', against: "a loopback server's answer", goal: 0.05, why, ...result }];
}
