import { isChannel, makeConnection, type Line, type Linked } from '../../core/channel';
import type { Environment } from '../../core/environment';
import { ownerOfCall } from '../../core/ownership';
import type { Settled } from '../../core/settle-answer';
import type { Stream } from '../../core/stream';
import { explain } from '../errors';
import { networkOf, type Network } from '../network';
import { brokenConnection, refuseNobody } from '../nobody';
import { printAddress } from '../print-address';
import { settleRoute } from '../respond';
import { goesOn, listenFor, whyNoSocket } from '../reply-bodies';

/** What a client of operations offers to speak. @see https://github.com/enisdenjo/graphql-ws/blob/master/PROTOCOL.md */
const socketProtocol = 'graphql-transport-ws';

/** What a socket asks for. */
export interface Wanted {
  readonly url: URL;
  readonly protocols: readonly string[];
  readonly line: Line;
  readonly below: (...args: never[]) => unknown;
}

/** A connection under way. */
export interface Connecting {
  readonly owner: Environment | undefined;
  readonly linked: Promise<Linked>;
  /** The component needs it no more. */
  leave(): void;
}

/** Connects a socket with what a route of its subject answers. */
export function connect(wanted: Wanted): Connecting {
  const { url } = wanted;
  const owner = ownerOfCall((environment) => environment.answers('WS', url));
  const network = owner && networkOf(owner);
  const ends: (() => void)[] = [];
  const linked =
    !network || owner.state === 'down'
      ? Promise.resolve().then(() => refuseNobody(`WS ${printAddress(url)}`, 'WebSocket', owner))
      : link(network, wanted, ends);
  return {
    owner,
    linked,
    leave: () => {
      for (const end of ends.splice(0)) end();
    },
  };
}

/** Links a socket with what its route answers. @param ends gets what is to be called when it is over */
export async function link(network: Network, wanted: Wanted, ends: (() => void)[]): Promise<Linked> {
  const { url, protocols, line, below } = wanted;
  const { environment } = network;
  const sent = { body: undefined, carrier: 'WebSocket', below } as const;
  if (!network.find('WS', url) && protocols.includes(socketProtocol)) {
    const about = { url: url.href, params: {}, protocols, lastEventId: '' };
    const connection = makeConnection(about, line);
    const { serveOperations } = await import('../graphql/subscriptions');
    serveOperations(network, connection, sent);
    await environment.gate.pass(`WS ${printAddress(url)}`);
    return connection;
  }
  const begun = network.begin('WS', url, sent);
  await network.refuseUnreached(begun);
  const { asked, what, found } = begun;
  const { route, params } = found!;
  const about = { url: url.href.replace(/^http/, 'ws'), params, protocols, lastEventId: '' };
  const connection = makeConnection(about, line);
  let settled: Settled;
  try {
    settled = await settleRoute(
      environment,
      begun,
      (answer) =>
        (answer as (connection: Linked, params: object) => unknown)(connection, params) ?? connection,
    );
  } catch (error) {
    return refuse((error as Error).cause);
  }
  if (settled.outcome === 'failure') return refuse(settled.failure.reason);
  const source = settled.value;
  if (source !== connection && !goesOn(source)) {
    const error = explain('SIM-ROUTE-ANSWER', { route: route.key, why: whyNoSocket(source)! });
    environment.fail(error);
    return refuse(error);
  }
  asked.status = 101;
  if (isChannel(source)) source.join(connection, environment);
  else if (source !== connection)
    ends.push(
      listenFor(environment, source as Stream<unknown>, {
        next: (value) => connection.send(value),
        error: () => connection.fail(),
        complete: () => connection.close(),
      }),
    );
  return connection;

  function refuse(reason: unknown): never {
    asked.status = typeof reason === 'number' ? reason : 0;
    environment.chronicle.add('answered', what, { detail: 'refused', trigger: true });
    throw brokenConnection(reason);
  }
}
