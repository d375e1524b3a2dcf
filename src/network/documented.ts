import type { Environment } from '../core/environment';
import type { Begun } from './asked';
import type { SchemaAnswer } from './from-json-schema';
import type { DocumentContract } from './from-open-api';
import type { Route } from './routes';

/** What a document answers to a request; undefined where it has no such operation. */
export async function answerByDocument(
  contract: DocumentContract,
  { asked, what }: Begun,
  request: Request,
  environment: Environment,
): Promise<Response | undefined> {
  const about = { request, body: asked.body, environment, route: asked.route! };
  const response = await environment.work.during('request', what, async () => {
    const { answerFrom } = await import('./contract/openapi');
    return answerFrom(contract, about);
  });
  await environment.gate.pass(what);
  return response;
}

/** The value of an answer that has to fit a schema. */
export const fitted = (
  answer: SchemaAnswer,
  value: unknown,
  route: string,
  environment: Environment,
): Promise<unknown> =>
  environment.work.during('body', route, async () => {
    const { fitToSchema } = await import('./contract/json-schema');
    return fitToSchema(answer, value, { route, environment });
  });

/** Checks a request, and what was answered by hand, against the documents of other routes. */
export const checkAnswered = (
  routes: readonly Route[],
  begun: Begun,
  request: Request,
  answer: Response | Error,
  environment: Environment,
): Promise<void> =>
  environment.work.during('body', begun.what, async () => {
    const { checkByDocuments } = await import('./contract/openapi');
    await checkByDocuments(routes, begun, request, answer, environment);
  });
