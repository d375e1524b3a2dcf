/** @jest-environment node */
import { fromOpenApi } from 'simulacra';
import 'simulacra/jest';
import { survives } from './survives';

describe('what is made to exhaust is refused', () => {
  const bomb = [
    'a: &a [x, x, x, x, x, x, x, x, x]',
    ...'bcdefgh'
      .split('')
      .map((name, at) => `${name}: &${name} [${Array(9).fill(`*${'abcdefgh'[at]}`).join(', ')}]`),
    'openapi: 3.1.0',
    'paths: *h',
  ].join('\n');
  const deep = `{"openapi":"3.1.0","paths":${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}}`;
  const circle = {
    openapi: '3.1.0',
    paths: {
      '/api/hives': {
        get: {
          responses: {
            200: { content: { 'application/json': { schema: { $ref: '#/components/schemas/A' } } } },
          },
        },
      },
    },
    components: { schemas: { A: { $ref: '#/components/schemas/B' }, B: { $ref: '#/components/schemas/A' } } },
  };
  const endless = {
    ...circle,
    components: {
      schemas: {
        A: {
          type: 'object',
          required: ['a', 'b'],
          properties: { a: { $ref: '#/components/schemas/A' }, b: { $ref: '#/components/schemas/A' } },
        },
      },
    },
  };
  it.each<[string, string | object]>([
    ['YAML that grows', bomb],
    ['JSON that is deep', deep],
    ['references in a circle', circle],
    ['a type that needs itself', endless],
  ])('%s', (_, document) => survives({ 'ANY /api/*': fromOpenApi(document) }));
});
