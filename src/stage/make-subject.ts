import { calledFrom } from '../core/errors/called-from';
import { refuse } from './errors';
import { nearest } from '../core/near';
import type { AnyFunction } from '../core/spy';
import type { StandIn } from '../core/stand-in';
import { makeStep } from '../core/step';
import { explained } from './explained';
import { makeGestures, printAsked } from './gestures';
import { lookFor, lookForOne, waitFor } from './look';
import { printOutline } from './outline';
import { makePart } from './parts';
import type { Stage } from './stage';
import { readDoubles } from '../seam/place';
import { isSwap } from '../seam/swap';
import type { ReadOptions } from './plan';
import { verdicts, type Subject, type Target } from './subject';
import { makeVerdicts } from './verdicts';

/** The subject as the test sees it. */
export function makeSubject(stage: Stage, component: unknown, options: ReadOptions): Subject {
  const { name, adapter } = stage.setting;
  const act = makeGestures(stage);
  const asked = (method: string, target: Target) => printAsked(stage, method, target);

  // The stack at the user's call: after the first await it could not be had any more.
  function here(method: keyof Subject): Error {
    return calledFrom(method, subject[method] as AnyFunction);
  }

  // What a test has to await, and what its failure is explained by.
  function step<T>(method: keyof Subject, work: (calledAt: Error) => Promise<T>): Promise<T> {
    const calledAt = here(method);
    return makeStep(
      method,
      calledAt,
      explained(stage, calledAt, () => work(calledAt)),
    );
  }

  const subject: Subject = {
    name,
    get container() {
      stage.environment.hasShownContainer = true;
      return stage.container;
    },
    chronicle: stage.chronicle,
    requests: stage.network.requests,
    find: (locator) => lookForOne(stage, locator, asked('find', locator), here('find')),
    findAll: (locator) => lookFor(stage, locator, asked('findAll', locator), here('findAll')),
    has: (locator) => lookFor(stage, locator, asked('has', locator), here('has')).length > 0,
    appears: (locator, patience = {}) =>
      step('appears', (at) => waitFor(stage, locator, true, patience, at).then(([first]) => first!)),
    vanishes: (locator, patience = {}) =>
      step('vanishes', (at) => waitFor(stage, locator, false, patience, at).then(() => undefined)),
    click: (target) => step('click', (at) => act.click(target, at)),
    type: (target, text) => step('type', (at) => act.type(target, text, at)),
    clear: (target) => step('clear', (at) => act.clear(target, at)),
    choose: (target, ...options) => step('choose', (at) => act.choose(target, options, at)),
    press: (keys, target) => step('press', (at) => act.press(keys, target, at)),
    update: (props) =>
      step('update', async (calledAt) => {
        stage.refuseGone('update()', calledAt);
        adapter.refuseProps?.(component, name, props, calledAt, true);
        stage.chronicle.add('updated', name, { detail: Object.keys(props).join(', '), trigger: true });
        await stage.act('updated the props', () => adapter.settle(() => stage.mounted?.update(props)));
      }),
    part: ((component: unknown) => makePart(stage, component, here('part'))) as Subject['part'],
    given: <T>(token: unknown) =>
      readGiven(stage, options, token, () => here('given')) as StandIn<NonNullable<T>>,
    get outputs() {
      return readOutputs(
        stage,
        calledFrom('outputs', Object.getOwnPropertyDescriptor(subject, 'outputs')!.get!),
      );
    },
    atRest: () => step('atRest', () => stage.atRest()),
    everyRouteAsked: () => stage.network.refuseUnused(here('everyRouteAsked')),
    outline: ({ depth = Infinity } = {}) => {
      stage.refuseGone('outline()', here('outline'));
      return stage.mounted ? printOutline(stage.mounted.tree(), depth) : '';
    },
    takeDown: () => makeStep('takeDown', here('takeDown'), stage.environment.takeDown()),
  };
  return Object.defineProperty(subject, verdicts, { value: makeVerdicts(stage) });
}

/** What a test provided for a token, or gave in place of a module's exports. @throws SIM-GIVEN-NONE */
function readGiven(
  stage: Stage,
  { provide, given }: ReadOptions,
  token: unknown,
  calledAt: () => Error,
): unknown {
  const { name, adapter } = stage.setting;
  if (isSwap(token) && given.swap?.includes(token)) return readDoubles(token);
  const found = provide.findLast((one) => one.token === token);
  if (found) return found.value;
  const nameToken = (key: unknown) => (isSwap(key) ? 'this swap' : adapter.nameOfToken(key));
  const provided = provide.map((one) => nameToken(one.token));
  return refuse(
    'SIM-GIVEN-NONE',
    { subject: name, asked: nameToken(token), provided },
    { calledAt: calledAt() },
  );
}

// A name that nothing is ever told by would read as "never told": it is refused.
function readOutputs(stage: Stage, calledAt: Error): Subject['outputs'] {
  const told = stage.mounted?.outputs() ?? {};
  return new Proxy(told, {
    get: (_, name) => {
      if (typeof name === 'symbol' || name in told || name === 'then' || name === 'toJSON')
        return told[name as string];
      const known = Object.keys(told);
      const fields = {
        subject: stage.setting.name,
        asked: name,
        known,
        nearest: nearest(name, known),
        hint: stage.setting.adapter.outputHint,
      };
      return refuse('SIM-OUTPUT-NONE', fields, { calledAt, chronicle: stage.chronicle });
    },
  }) as Subject['outputs'];
}
