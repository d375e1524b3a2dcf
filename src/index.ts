import type { ArrivalOptions, Arrivals } from './arrivals/every-arrival';
import { calledFrom } from './core/errors/called-from';
import { SimulacraError as AnyFailure } from './core/errors/error';
import { openBench, type Bench, type OpenOptions } from './stage/open';
import type { CodedFailure } from './registry';
import type { States } from './states/declare';
import type { StatesReport, VerifyOptions } from './states/verification';

export type { ArrivalOptions, Arrivals } from './arrivals/every-arrival';
export { fail, inTurn, later } from './core/answers';
export type { Failure, InTurn, Later, Problem } from './core/answers';
export { channel } from './core/channel';
export type { Channel, Connection, EventFields } from './core/channel';
export { hold } from './core/hold';
export type { Held, Waiting } from './core/hold';
export { record } from './core/record';
export type { Emitting, EmittedBy, Recording } from './core/record';
export { stream } from './core/stream';
export type { Listener, Stream } from './core/stream';
export { spy } from './core/spy';
export type { AnswerOf, Spy } from './core/spy';
export { standIn } from './core/stand-in';
export type { Answers, StandIn } from './core/stand-in';
export { swap } from './seam/swap';
export type { Swap, Swapped } from './seam/swap';
export { cases } from './states/cases';
export type { Declared, State, States } from './states/declare';
export type { StateReport, StatesReport, VerifyOptions } from './states/verification';
export { takeDown } from './core/take-down';
export type { Code, CodedFailure, FailureFields } from './registry';
export type { Chronicle, Happening, HappeningKind } from './core/chronicle';
export type { Place, Thrown } from './core/origin';
export { fromJsonSchema } from './network/from-json-schema';
export type { SchemaAnswer } from './network/from-json-schema';
export { fromOpenApi } from './network/from-open-api';
export type { DocumentContract } from './network/from-open-api';
export { fromSchema } from './network/from-schema';
export type { Contract, SchemaOptions, TypeAnswer } from './network/from-schema';
export { css, label, part, role, testId, text } from './page/locators';
export type { Locator, LocatorOptions, RoleState, Words } from './page/locators';
export type { AskedRequest, AskedRequests } from './network/asked';
export type { NetworkAnswer, OperationAnswer, Routes, RoutesOf, SocketAnswer } from './stage/options';
export type { Bench, OpenOptions } from './stage/open';
export type { OpenPage, SubjectPage } from './stage/page';
export type { PageOption } from './page/settings/settings';
export type { ClickHow } from './page/gestures/click';
export type { Distance } from './page/gestures/drag';
export type { Pasted, TypeWhere } from './page/gestures/acts';
export type { Part, PartInstance } from './stage/parts';
export type { Patience, Subject, Target } from './stage/subject';
export type { Due } from './stage/scheduled';
export type { Time, TimeOption, VirtualTime } from './stage/time';

/**
 * Every failure this library explains. What is an instance of it has `error.fields` of the type that belongs to
 * `error.code`; the codes and their facts are listed in docs/errors.md.
 *
 * @example
 * const failure: unknown = await isolate(YardGate).catch((error: unknown) => error);
 * if (failure instanceof SimulacraError && failure.code === 'SIM-PROVIDE-MISSING')
 *   expect(failure.fields.provided).toEqual([]);
 */
export const SimulacraError = AnyFailure as unknown as {
  [Symbol.hasInstance](value: unknown): value is CodedFailure;
  readonly prototype: AnyFailure;
};
export type SimulacraError = AnyFailure;

/**
 * Puts code that renders nothing into the same surroundings as a subject: answers for its requests, virtual time,
 * a page, expected logs. In Node and in a page alike.
 *
 * @throws SIM-OPTION-UNKNOWN, SIM-OPTION-VALUE, SIM-TIME-DATE, SIM-PAGE-SETTING
 */
export function open(options: OpenOptions = {}): Promise<Bench> {
  // What it needs is read only now.
  return openBench(options, open);
}

/**
 * Brings each declared state about, and finds out whether the states can be told apart: what one declares must not
 * all hold in another. In Jest, `testStates()` of `simulacra/jest` makes tests of the same.
 *
 * @param options `only`: the names of those to bring about, where not all are; `outlines`: true for the outline of each
 * @throws SIM-STATES-GIVEN
 * @example
 * const board = states(HiveBoard, { props: { yard: 'north' }, stub: [HiveCard] }, {
 *   loading: { network: { 'GET /api/hives': hold() }, shows: [role('status', 'Loading hives')] },
 *   loaded: { network: { 'GET /api/hives': hives }, counts: [[part(HiveCard), 3]] },
 * });
 * const { pairs, failures } = await verifyStates(board);
 * expect(pairs).toEqual({ compared: 2, apart: 2 });
 * expect(failures).toEqual([]);
 */
export async function verifyStates(given: States, options: VerifyOptions = {}): Promise<StatesReport> {
  // Read only by those who ask.
  return (await import('./states/verification')).verifyStates(given, options);
}

/**
 * Runs a scenario once for every order in which the answers that wait at the same time can arrive (those of
 * routes, spies, stand-ins and swapped modules, and the openings of sockets), each time with new subjects. It holds
 * in all orders, or the failure names the order in words, what happened in it, and a code that runs it alone.
 *
 * @param scenario a test as it would be written without: `isolate`, steps, checks
 * @throws SIM-ARRIVAL, SIM-ARRIVAL-DIFFERS, SIM-ARRIVAL-ENDLESS, SIM-ARRIVAL-OVER,
 * SIM-ARRIVAL-LIMIT, SIM-ARRIVAL-UP, SIM-ARRIVAL-GIVEN; and what the scenario throws in the order in which everything is asked for
 * @example
 * const { tried, complete } = await everyArrival(async () => {
 *   const board = await isolate(HiveBoard, {
 *     props: { yard: 'north' },
 *     time: 'virtual',
 *     network: { 'GET /api/hives?q=bo': [hives[1]!], 'GET /api/hives': hives },
 *   });
 *   await board.type(label('Find a hive'), 'bo');
 *   await board.time.advance('200ms');
 *   expect(board).toShow(role('article'), { times: 1 });
 * }, { acrossSteps: true });
 * expect([tried, complete]).toEqual([3, true]);
 */
export async function everyArrival(scenario: () => unknown, options: ArrivalOptions = {}): Promise<Arrivals> {
  const calledAt = calledFrom('everyArrival', everyArrival);
  const { tryArrivals } = await import('./arrivals/every-arrival');
  return tryArrivals(scenario, options, calledAt);
}
