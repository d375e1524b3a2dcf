import { calledFrom } from '../core/errors';
import { refuse } from './errors';
import { nearest } from '../core/near';
import type { AnyFunction } from '../core/spy';
import type { StandIn } from '../core/stand-in';
import { explained, makeGestures, printAsked } from './gestures';
import { lookFor, lookForOne, waitFor } from './look';
import { printOutline } from './outline';
import { makePart } from './parts';
import type { Stage } from './stage';
import { readDoubles } from '../seam/place';
import { isSwap } from '../seam/swap';
import type { AllOptions } from './options';
import { verdicts, type Subject, type Target } from './subject';
import { makeVerdicts } from './verdicts';

/** The subject as the test sees it. */
export function makeSubject(stage: Stage, { provide: provided = [], swap: swaps = [] }: AllOptions): Subject {
  const { name, adapter } = stage.setting;
  const act = makeGestures(stage);
  const asked = (method: string, target: Target) => printAsked(stage, method, target);

  // The stack at the user's call: after the first await it could not be had any more.
  function here(method: keyof Subject): Error {
    return calledFrom(method, subject[method] as AnyFunction);
  }

  const subject: Subject = {
    name,
    container: stage.container,
    chronicle: stage.chronicle,
    requests: stage.network.requests,
    find: (locator) => lookForOne(stage, locator, asked('find', locator), here('find')),
    findAll: (locator) => lookFor(stage, locator, asked('findAll', locator), here('findAll')),
    has: (locator) => lookFor(stage, locator, asked('has', locator), here('has')).length > 0,
    appears: (locator, patience = {}) =>
      waitFor(stage, locator, true, patience, here('appears')).then(([first]) => first!),
    vanishes: (locator, patience = {}) =>
      waitFor(stage, locator, false, patience, here('vanishes')).then(() => undefined),
    click: (target) => act.click(target, here('click')),
    type: (target, text) => act.type(target, text, here('type')),
    clear: (target) => act.clear(target, here('clear')),
    choose: (target, ...options) => act.choose(target, options, here('choose')),
    press: (keys, target) => act.press(keys, target, here('press')),
    update: (props) => {
      const calledAt = here('update');
      return explained(stage, calledAt, () => {
        stage.refuseGone('update()', calledAt);
        stage.chronicle.add('updated', name, { detail: Object.keys(props).join(', '), trigger: true });
        return stage.act('updated the props', () => adapter.settle(() => stage.mounted?.update(props)));
      });
    },
    part: ((component: unknown) => makePart(stage, component, here('part'))) as Subject['part'],
    given: <T>(token: unknown) => {
      if (isSwap(token) && swaps.includes(token)) return readDoubles(token) as StandIn<NonNullable<T>>;
      const found = provided.findLast(([key]) => key === token);
      const nameToken = (key: unknown) => (isSwap(key) ? 'this swap' : adapter.nameOfToken(key));
      if (!found)
        refuse(
          'SIM-GIVEN-NONE',
          { subject: name, asked: nameToken(token), provided: provided.map(([key]) => nameToken(key)) },
          { calledAt: here('given') },
        );
      return found[1] as StandIn<NonNullable<T>>;
    },
    get outputs() {
      return readOutputs(
        stage,
        calledFrom('outputs', Object.getOwnPropertyDescriptor(subject, 'outputs')!.get!),
      );
    },
    atRest: () => stage.atRest(),
    everyRouteAsked: () => stage.network.refuseUnused(here('everyRouteAsked')),
    outline: ({ depth = Infinity } = {}) => {
      stage.refuseGone('outline()', here('outline'));
      return stage.mounted ? printOutline(stage.mounted.tree(), depth) : '';
    },
    takeDown: () => stage.sandbox.takeDown(),
  };
  return Object.defineProperty(subject, verdicts, { value: makeVerdicts(stage) });
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
