import type { CDPSession } from 'puppeteer-core';
import { explain } from './errors';

/**
 * Evaluates an expression on a page, as if a person had asked for it, and waits for what it promises.
 *
 * @param who whom a failure names
 * @param world where it is evaluated; on the page itself unless said otherwise
 * @throws SIM-PAGE-THREW
 */
export async function evaluateOn<T>(
  session: CDPSession,
  expression: string,
  who: string,
  world?: number,
): Promise<T> {
  const how = { awaitPromise: true, returnByValue: true, userGesture: true };
  const asked = { ...how, expression, ...(world !== undefined && { contextId: world }) };
  const { result, exceptionDetails } = await session.send('Runtime.evaluate', asked);
  if (!exceptionDetails) return result.value as T;
  const { exception, text } = exceptionDetails;
  const threw = exception?.description ?? String(exception?.value ?? text);
  throw explain('SIM-PAGE-THREW', { page: who, threw });
}

/** Makes a world beside a page: it has the same elements, and globals of its own. It is gone with the document. */
export async function makeWorld(session: CDPSession): Promise<number> {
  const { frameTree } = await session.send('Page.getFrameTree');
  const world = { frameId: frameTree.frame.id, worldName: 'simulacra' };
  return (await session.send('Page.createIsolatedWorld', world)).executionContextId;
}
