import type { Environment } from '../../core/environment';
import { nearest } from '../../core/near';
import type { Settled } from '../../core/settle-answer';
import { isContract } from '../from-schema';
import type { Begun } from '../asked';
import { explain } from '../errors';
import { brokenConnection } from '../nobody';
import type { Operation } from '../operations';
import { settleRoute } from '../respond';
import { execute } from '../contract/execute';
import { loadSchema } from '../contract/schema';
import { readTrouble } from './troubles';
import { findLacking, makeResult, type Result } from './results';

/** What the route of an operation gives. */
export async function settleOperation(
  environment: Environment,
  begun: Begun,
  { variables }: Operation,
  request: Request | undefined,
): Promise<Settled> {
  if (isContract(begun.found!.route.answer)) {
    await environment.gate.pass(begun.what);
    return { outcome: 'value', value: undefined };
  }
  return settleRoute(environment, begun, (answer) =>
    (answer as (variables: object, request: Request | undefined) => unknown)(variables, request),
  );
}

/** What is sent for an operation: the value of its route, which has to have all that was selected. */
export async function resultOf(
  environment: Environment,
  { found, contract }: Pick<Begun, 'found' | 'contract'>,
  operation: Operation,
  value: unknown,
): Promise<Result> {
  const { route } = found!;
  if (contract) {
    try {
      const loaded = await loadSchema(contract);
      const { options } = contract;
      return await execute({ loaded, environment, operation, route: route.key, options }, value);
    } catch (error) {
      // The component may catch what breaks its request.
      environment.fail(error as Error);
      throw brokenConnection(error);
    }
  }
  const result = makeResult(value ?? null);
  if (operation.query === undefined) return result;
  const document = await readDocument(operation.query, route.key, environment);
  const lacking = document ? findLacking(document, operation, result.data) : [];
  const [first] = lacking;
  if (first) {
    const field = first.path.split('.').at(-1)!;
    const near = nearest(field, first.has);
    const fields = {
      route: route.key,
      lacking: lacking.map(({ path }) => path),
      has: first.has,
      nearest: near,
    };
    environment.fail(explain('SIM-GRAPHQL-LACKS', fields));
  }
  return result;
}

async function readDocument(query: string, route: string, environment: Environment) {
  const graphql = await import('graphql').catch(() => undefined);
  if (!graphql) {
    environment.fail(explain('SIM-GRAPHQL-PACKAGE', { route }));
    return undefined;
  }
  try {
    return graphql.parse(query);
  } catch (error) {
    environment.fail(explain('SIM-GRAPHQL-DOCUMENT', { route, ...readTrouble(error as Error, query) }));
    return undefined;
  }
}
