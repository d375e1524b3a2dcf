/** @jest-environment node */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fail, fromOpenApi } from 'simulacra';
import { hives } from '../../examples/shared/hive';
import { start } from './serving';

const openapi = readFileSync(join(__dirname, '../../examples/shared/openapi.yaml'), 'utf8');

describe('what is posted', () => {
  const posted = { name: 'Dahlia', yard: 'north' };

  it.each([
    [
      'by hand',
      () => ({
        'GET /api/hives': hives,
        'POST /api/hives': Response.json({ id: 'h9' }, { status: 201 }),
        'ANY /api/hives/:hiveId': fail(404),
      }),
    ],
    [
      'by a function',
      () => ({
        'GET /api/hives': () => hives,
        'POST /api/hives': async (request: Request) => ({ id: 'h9', ...(await request.json()) }),
        'ANY /api/hives/:hiveId': fail(404),
      }),
    ],
  ])('is kept where routes are written %s', async (_, makeRoutes) => {
    const { served, ask } = await start({ network: makeRoutes as () => object });
    const names = async (query = '') =>
      ((await ask(`GET /api/hives${query}`)).body as { name: string }[]).map(({ name }) => name);
    await ask('POST /api/hives', posted);
    expect(await names()).toEqual(['Anemone', 'Borage', 'Clover', 'Dahlia']);
    expect(await names('?yard=south')).not.toContain('Dahlia');
    expect((await ask('GET /api/hives/h9')).body).toEqual({ id: 'h9', ...posted });
    expect((await ask('PATCH /api/hives/h9', { name: 'Erica' })).body).toMatchObject({ name: 'Erica' });
    expect(await names()).toContain('Erica');
    expect((await ask('DELETE /api/hives/h9')).status).toBe(204);
    expect(await names()).toEqual(['Anemone', 'Borage', 'Clover']);
    expect((await ask('GET /api/hives/h9')).status).toBe(404);
    await ask('POST /api/hives', posted);
    await served.reset();
    expect(await names()).toEqual(['Anemone', 'Borage', 'Clover']);
  });

  it('is kept where a contract answers', async () => {
    const hive = {
      type: 'object',
      required: ['id', 'name'],
      properties: { id: { type: 'string' }, name: { type: 'string' } },
    };
    const content = (one: object) => ({ content: { 'application/json': { schema: one } } });
    const document = {
      openapi: '3.1.0',
      paths: {
        '/hives': {
          get: { responses: { 200: content({ type: 'array', items: hive }) } },
          post: { requestBody: content({ type: 'object' }), responses: { 201: content(hive) } },
        },
        '/hives/{hiveId}': {
          get: { responses: { 200: content(hive), 404: {} } },
          put: { requestBody: content({ type: 'object' }), responses: { 200: content(hive) } },
          delete: { responses: { 204: {} } },
        },
      },
    };
    const { ask } = await start({
      network: { 'ANY /hives*': fromOpenApi(document), 'ANY /hives/*': fromOpenApi(document) },
    });
    const ids = async () => ((await ask('GET /hives')).body as { id: string }[]).map(({ id }) => id);
    const before = await ids();
    const made = (await ask('POST /hives', { name: 'Dahlia' })).body as { id: string };
    expect(made).toMatchObject({ name: 'Dahlia' });
    expect(before).not.toContain(made.id);
    expect(await ids()).toEqual([...before, made.id]);
    expect((await ask(`GET /hives/${made.id}`)).body).toEqual(made);
    expect((await ask(`PUT /hives/${before[0]}`, { name: 'Erica' })).body).toMatchObject({ name: 'Erica' });
    expect((await ask(`GET /hives/${before[0]}`)).body).toEqual({ id: before[0], name: 'Erica' });
    expect((await ask('GET /hives')).body[0]).toEqual({ id: before[0], name: 'Erica' });
    await ask(`DELETE /hives/${before[1]}`);
    expect((await ask(`GET /hives/${before[1]}`)).status).toBe(404);
    expect(await ids()).toEqual([before[0], made.id]);
  });

  it('may be a file', async () => {
    const { ask } = await start({ network: { 'ANY /api/*': fromOpenApi(openapi) } });
    await ask('PUT /api/photos/p1', 'frame', { 'content-type': 'image/png' });
    const { body, headers } = await ask('GET /api/photos/p1');
    expect([body, headers.get('content-type')]).toEqual(['frame', 'image/png']);
  });

  it('touches no prototype', async () => {
    const { ask } = await start({
      network: { 'GET /api/hives': hives, 'POST /api/hives': { id: 'h9' }, 'ANY /api/hives/:id': {} },
    });
    const body = '{"__proto__":{"polluted":1},"constructor":{"prototype":{"polluted":1}},"name":"Dahlia"}';
    await ask('POST /api/hives', body);
    await ask('PATCH /api/hives/h9', body);
    await ask('PATCH /api/hives/__proto__', body);
    await ask('GET /api/hives');
    expect(({} as { polluted?: number }).polluted).toBeUndefined();
  });
});
