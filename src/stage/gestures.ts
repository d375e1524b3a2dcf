import type { HappeningKind } from '../core/chronicle';
import { runAs } from '../core/ownership';
import { print } from '../core/print';
import { describe } from '../page/describe';
import { refuseNoField, refuseUnable } from '../page/gestures/able';
import { choose } from '../page/gestures/choose';
import { click, moveFocus } from '../page/gestures/click';
import type { Send } from '../page/gestures/dispatch';
import { pickedTypes, setWhole } from '../page/gestures/edit';
import { clearField, press, typeKeys } from '../page/gestures/keyboard';
import { lookForOne, printAsked } from './look';
import type { Stage } from './stage';
import type { Target } from './subject';

type Gesture = 'click' | 'type' | 'clear' | 'choose' | 'press';

const acts: Record<Gesture, { verb: string; kind: HappeningKind }> = {
  click: { verb: 'click', kind: 'clicked' },
  type: { verb: 'type into', kind: 'typed' },
  clear: { verb: 'clear', kind: 'cleared' },
  choose: { verb: 'choose in', kind: 'chose' },
  press: { verb: 'press a key on', kind: 'pressed' },
};

/** What a person does to a subject: found, found able, told in the chronicle, done, brought to rest. */
export function makeGestures(stage: Stage) {
  const send: Send = (work) => {
    stage.onTurn();
    return stage.setting.adapter.settleNow(() => runAs(stage.environment, work));
  };

  const gesture = async (
    method: Gesture,
    target: Target,
    calledAt: Error,
    perform: (element: HTMLElement) => Promise<void>,
    detail = '',
  ): Promise<void> => {
    const { verb, kind } = acts[method];
    const asked = () => printAsked(stage, method, target);
    stage.refuseGone(asked, calledAt);
    await stage.atRest();
    const element = lookForOne(stage, target, asked, calledAt);
    const around = stage.background(calledAt);
    refuseUnable(element, verb, around);
    if (method === 'type' || method === 'clear') refuseNoField(element, verb, around);
    stage.chronicle.add(kind, describe(element), { detail, trigger: true });
    await stage.act(`${kind} ${describe(element)}`, () => perform(element));
  };

  return {
    click: (target: Target, at: Error) => gesture('click', target, at, (element) => click(element, send)),
    type: (target: Target, text: string, at: Error) =>
      gesture('type', target, at, (element) => typeInto(element, text, send), print(text)),
    clear: (target: Target, at: Error) => gesture('clear', target, at, (element) => empty(element, send)),
    choose: (target: Target, options: readonly string[], at: Error) =>
      gesture(
        'choose',
        target,
        at,
        (element) => choose(element, options, send),
        options.map((option) => print(option)).join(', '),
      ),
    press: (keys: string, target: Target | undefined, at: Error) => {
      const place = target ?? document.activeElement ?? document.body;
      const perform = async (element: HTMLElement) => {
        if (target) await moveFocus(element, document, send);
        await press(element, keys, send);
      };
      return gesture('press', place, at, perform, keys);
    },
  };
}

async function empty(element: HTMLElement, send: Send): Promise<void> {
  await click(element, send);
  await clearField(element, send);
}

async function typeInto(element: HTMLElement, text: string, send: Send): Promise<void> {
  await click(element, send);
  const { type } = element as HTMLInputElement;
  if (element.localName === 'input' && pickedTypes.test(type)) await setWhole(element, text, send);
  else await typeKeys(element, text, send);
}
