import type { Configuration } from 'simulacra/serve';

/** `simulacra serve` in this folder is the backend of the three examples. */
export default {
  serve: { from: ['openapi.yaml', 'schema.graphql', 'routes.ts'], port: 4180 },
} satisfies Configuration;
