import { calledFrom, refuse } from '../core/errors';
import type { AnyFunction } from '../core/spy';
import { print } from '../core/print';
import type { StandIn } from '../core/stand-in';
import { describe } from '../page/describe';
import { refuseNoField, refuseUnable } from '../page/gestures/able';
import { choose } from '../page/gestures/choose';
import { click } from '../page/gestures/click';
import type { Send } from '../page/gestures/dispatch';
import { pickedTypes, setWhole } from '../page/gestures/edit';
import { clearField, press, typeKeys } from '../page/gestures/keyboard';
import type { HappeningKind } from '../core/chronicle';
import { isLocator, printLocator } from '../page/locators';
import { lookFor, lookForOne, waitFor } from './look';
import { printOutline } from './outline';
import { makePart } from './parts';
import type { Stage } from './stage';
import { verdicts, type Subject, type Target } from './subject';
import { makeVerdicts } from './verdicts';

/** The subject as the test sees it. */
export function makeSubject(stage: Stage, provided: readonly (readonly [unknown, unknown])[]): Subject {
  const { name, adapter } = stage.setting;
  const send: Send = (work) => adapter.settleNow(work);
  const asked = (method: string, target?: Target) =>
    `${method}(${isLocator(target) ? printLocator(target, stage.view().nameOf) : target === undefined ? '' : print(target)})`;

  async function gesture(method: Gesture, target: Target, perform: (element: HTMLElement) => void, detail = '', calledAt = here(method)) {
    stage.refuseGone(asked(method, target), calledAt);
    await stage.atRest();
    const element = lookForOne(stage, target, asked(method, target), calledAt);
    const text = String(stage.chronicle);
    explained(stage, () => {
      refuseUnable(element, acts[method].verb, calledAt, text);
      if (method === 'type' || method === 'clear') refuseNoField(element, acts[method].verb, calledAt, text);
    });
    stage.chronicle.add(acts[method].kind, describe(element), { detail, trigger: true });
    await stage.act(`${acts[method].kind} ${describe(element)}`, () => explained(stage, () => perform(element)));
  }

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
    appears: async (locator, patience = {}) => (await waitFor(stage, locator, true, patience, here('appears')))[0]!,
    vanishes: async (locator, patience = {}) => void (await waitFor(stage, locator, false, patience, here('vanishes'))),
    click: (target) => gesture('click', target, (element) => click(element, send)),
    type: (target, text) => gesture('type', target, (element) => typeInto(element, text, send), print(text)),
    clear: (target) =>
      gesture('clear', target, (element) => {
        click(element, send);
        clearField(element, send);
      }),
    choose: (target, ...options) => gesture('choose', target, (element) => choose(element, options, send), options.map((option) => print(option)).join(', ')),
    press: (keys, target) => {
      const calledAt = here('press');
      const at = target ?? document.activeElement ?? document.body;
      return gesture('press', at, (element) => {
        if (target) element.focus();
        press(element, keys, send);
      }, keys, calledAt);
    },
    update: async (props) => {
      stage.refuseGone('update()', here('update'));
      stage.chronicle.add('updated', name, { detail: Object.keys(props).join(', '), trigger: true });
      await stage.act('updated the props', () => adapter.settle(() => stage.mounted?.update(props)));
    },
    part: ((component: unknown) => makePart(stage, component, here('part'))) as Subject['part'],
    given: <T>(token: unknown) => {
      const found = provided.findLast(([key]) => key === token);
      const nameToken = (key: unknown) => adapter.nameOf(key) ?? nameOfToken(key);
      if (!found) refuse('SIM-GIVEN-NONE', { subject: name, asked: nameToken(token), provided: provided.map(([key]) => nameToken(key)) }, { calledAt: here('given') });
      return found[1] as StandIn<T>;
    },
    atRest: () => stage.atRest(),
    everyRouteAsked: () => explained(stage, () => stage.network.refuseUnused(here('everyRouteAsked'))),
    outline: ({ depth = Infinity } = {}) => {
      stage.refuseGone('outline()', here('outline'));
      return stage.mounted ? printOutline(stage.mounted.tree(), depth) : '';
    },
    takeDown: () => stage.sandbox.takeDown(),
  };
  return Object.defineProperty(subject, verdicts, { value: makeVerdicts(stage) });
}

type Gesture = 'click' | 'type' | 'clear' | 'choose' | 'press';
const acts: Record<Gesture, { verb: string; kind: HappeningKind }> = {
  click: { verb: 'click', kind: 'clicked' },
  type: { verb: 'type into', kind: 'typed' },
  clear: { verb: 'clear', kind: 'cleared' },
  choose: { verb: 'choose in', kind: 'chose' },
  press: { verb: 'press a key on', kind: 'pressed' },
};

function typeInto(element: HTMLElement, text: string, send: Send): void {
  click(element, send);
  const { type } = element as HTMLInputElement;
  if (element.localName === 'input' && pickedTypes.test(type)) setWhole(element, text, send);
  else typeKeys(element, text, send);
}


// Once a failure was explained, what is left over at the end of the test is no news.
function explained<T>(stage: Stage, work: () => T): T {
  try {
    return work();
  } catch (failure) {
    stage.sandbox.explained = true;
    throw failure;
  }
}

const nameOfToken = (key: unknown): string => {
  const { displayName, name } = (key ?? {}) as { displayName?: string; name?: string };
  return displayName ?? name ?? 'a context';
};

