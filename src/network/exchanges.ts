import { once } from '../core/shared';
import type { AskedRequest } from './asked';
import type { Operation } from './operations';

/** What was answered to a request, for whoever writes it down. It is kept for as long as the request is. */
export interface Exchange {
  readonly status: number;
  readonly headers: readonly (readonly [name: string, value: string])[];
  /** What was sent back, where that is not read by anyone else; undefined for what arrives bit by bit. */
  readonly content: Content | undefined;
  /** The operation that was sent, of one that is answered by its name. */
  readonly operation?: Operation | undefined;
  /** When the answer came, in milliseconds since 1970, and how long it took. */
  readonly answeredAt: number;
  readonly took: number;
}
export type Content = string | ArrayBufferView | Response;

const exchanges = once('exchanges', () => new WeakMap<AskedRequest, Exchange>());
const contents = once('contents', () => new WeakMap<Response, Content>());

/** Keeps in mind what a response was made of. */
export function madeOf(response: Response, content: Content): Response {
  contents.set(response, content);
  return response;
}

/** Keeps in mind what was answered. @param elapsed milliseconds on the clock that the request was sent by */
export function noteExchange(
  asked: AskedRequest,
  { status, headers }: Pick<Response, 'status' | 'headers'>,
  elapsed: number,
  more: Pick<Exchange, 'content' | 'operation'>,
): void {
  const took = elapsed - asked.at;
  exchanges.set(asked, { status, headers: [...headers], answeredAt: Date.now(), took, ...more });
}

export const contentOf = (response: Response): Content | undefined => contents.get(response);
export const exchangeOf = (asked: AskedRequest): Exchange | undefined => exchanges.get(asked);
