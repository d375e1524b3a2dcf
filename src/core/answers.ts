import type { Environment } from './environment';
import type { Held } from './hold';
import { markOf } from './mark';
import { Memory } from './memory';

/** An answer that all doubles share: functions, services and routes. */
export interface Failure {
  readonly simulacra: 'fail';
  /** What went wrong: nothing (a broken connection), a status, a text or an error. */
  readonly reason: unknown;
  /** For a status: the fields of the problem details that go with it. */
  readonly problem: Problem | undefined;
}

/** Problem details for HTTP APIs, as in RFC 9457; fields of your own are welcome. */
export interface Problem {
  readonly type?: string;
  readonly title?: string;
  readonly detail?: string;
  readonly instance?: string;
  readonly [field: string]: unknown;
}

/** An answer that arrives after a time. */
export interface Later<T> {
  readonly simulacra: 'later';
  /** Milliseconds. */
  readonly delay: number;
  readonly answer: T;
}

/** Answers for the first, second, third … time of asking; the last one stays. */
export interface InTurn<T> {
  readonly simulacra: 'inTurn';
  readonly answers: readonly T[];
  /** Whose turn it is, for each subject; what it is made of is this library's own matter. */
  readonly turns: object;
}

/** Any answer that is not simply a value. */
export type Arranged = Failure | Held<unknown> | Later<unknown> | InTurn<unknown>;

/**
 * An error, as an answer.
 *
 * On the network, `fail(503)` sends that status with problem details (RFC 9457), to which `problem` adds
 * fields; `fail()` is a broken connection. A function returns a rejected promise, so this answer is only
 * accepted for functions that return a promise.
 *
 * @param reason an HTTP status from 400 to 599, a text, an error, or nothing for a broken connection
 * @param problem fields of the problem details sent with a status
 * @see https://www.rfc-editor.org/rfc/rfc9457
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': fail(503) } });
 * expect(board).toShow(role('alert'));
 */
export function fail(reason?: unknown, problem?: Problem): Failure {
  return { simulacra: 'fail', reason, problem };
}

/**
 * An answer that arrives after a delay, so that something else can happen first.
 *
 * @param delay milliseconds
 * @param answer any answer
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': later(200, hives) } });
 * expect(board).toShow(role('status'));
 * await board.appears(text('Anemone'));
 */
export function later<T>(delay: number, answer: T): Later<T> {
  return { simulacra: 'later', delay, answer };
}

/**
 * A different answer for each request or call. After the last answer, the last one repeats. Each subject starts
 * with the first.
 *
 * @param answers any answers, in order
 * @example
 * const board = await isolate(HiveBoard, { props: { yard: 'north' }, network: { 'GET /api/hives': inTurn(fail(503), hives) } });
 * await board.click(role('button', 'Try again'));
 * expect(board).toShow(text('Anemone'));
 */
export function inTurn<T extends readonly [unknown, ...unknown[]]>(...answers: T): InTurn<T[number]> {
  return {
    simulacra: 'inTurn',
    answers,
    turns: new Memory<{ next: number }>((outside) => ({ next: outside?.next ?? 0 })),
  };
}

/** The answer whose turn it is for a subject; the turn passes on. */
export function takeTurn<T>({ answers, turns }: InTurn<T>, environment: Environment | undefined): T {
  const turn = (turns as Memory<{ next: number }>).of(environment);
  return answers[Math.min(turn.next++, answers.length - 1)]!;
}

/** True for what `fail`, `hold`, `later` and `inTurn` return. */
export const isArranged = (value: unknown): value is Arranged => arrangements.has(markOf(value));

const arrangements = new Set<unknown>(['fail', 'hold', 'later', 'inTurn']);
