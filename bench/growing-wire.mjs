import { fromOpenApi, fromSchema, open, takeDown } from 'simulacra';
import { middle, took } from './measure.mjs';

const many = (count) => Array.from({ length: count }, (_, at) => at);
/** The middle of several times, in milliseconds. */
const usual = async (work) => {
  const times = [];
  for (let n = 0; n < 50; n++) times.push(await took(work));
  return middle(times);
};

/** Routes, schemas and documents that are large: what, how much, a bound in milliseconds, and how long it takes. */
export const wire = [
  [
    'a request answered by one of many routes',
    '5,000 routes',
    2,
    async () => {
      const routes = Object.fromEntries(many(5000).map((at) => [`GET /things/${at}/:id`, { at }]));
      const bench = await open({ network: routes });
      const time = await usual(() => bench.run(async () => (await fetch('/things/4999/7')).json()));
      await takeDown();
      return time;
    },
  ],
  [
    'an operation answered from a schema',
    '1,000 types',
    20,
    async () => {
      const type = (at) => `type T${at} { id: ID! name: String! next: [T${(at + 1) % 1000}!]! }`;
      const schema = `type Query { first: T0! } ${many(1000).map(type).join(' ')}`;
      const bench = await open({ network: { 'POST /graphql': fromSchema(schema) } });
      const body = JSON.stringify({ query: '{ first { id name next { id name next { id name } } } }' });
      const time = await usual(() =>
        bench.run(async () => (await fetch('/graphql', { method: 'POST', body })).json()),
      );
      await takeDown();
      return time;
    },
  ],
  [
    'an OpenAPI document read, and its first answer',
    '4,000 paths, 5.7 MB',
    400,
    async () => {
      const fields = Object.fromEntries(
        many(12).map((at) => [`f${at}`, { type: 'string', description: 'x'.repeat(60) }]),
      );
      const schemas = Object.fromEntries(
        many(4000).map((at) => [`S${at}`, { type: 'object', properties: fields }]),
      );
      const responses = (at) => ({
        200: { content: { 'application/json': { schema: { $ref: `#/components/schemas/S${at}` } } } },
      });
      const paths = Object.fromEntries(
        many(4000).map((at) => [`/api/s${at}/{id}`, { get: { responses: responses(at) } }]),
      );
      const document = { openapi: '3.1.0', paths, components: { schemas } };
      return took(async () => {
        const bench = await open({ network: { 'ANY /api/*': fromOpenApi(document) } });
        await bench.run(async () => (await fetch('/api/s77/1')).json());
      });
    },
  ],
];
