import './page.mjs';
import { isolate } from 'simulacra/react';
import { record, role, takeDown } from 'simulacra';
import { act, createElement as h, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { middle, took, turn } from './measure.mjs';

function Counter() {
  const [count, set] = useState(0);
  return h('button', { onClick: () => set(count + 1) }, `Smoke ${count}`);
}

const mouse = { pointerId: 1, pointerType: 'mouse', isPrimary: true };
/** What a browser tells of the second click on the same button. */
const events = [
  ['pointermove', 'PointerEvent', { ...mouse, button: -1 }],
  ['mousemove', 'MouseEvent', {}],
  ['pointerdown', 'PointerEvent', { ...mouse, buttons: 1 }],
  ['mousedown', 'MouseEvent', { buttons: 1, detail: 1 }],
  ['pointerup', 'PointerEvent', mouse],
  ['mouseup', 'MouseEvent', { detail: 1 }],
  ['click', 'PointerEvent', { ...mouse, detail: 1 }],
];

async function clicked(times) {
  const counter = await isolate(Counter);
  const button = counter.find(role('button'));
  await counter.click(button);
  const time = await took(async () => {
    for (let n = 0; n < times; n++) await counter.click(button);
  });
  if (button.textContent !== `Smoke ${times + 1}`) throw new Error('the clicks were not heard');
  await takeDown();
  return time;
}

/** The same events by hand, each rendered, and a turn to come to rest before and after. */
async function dispatched(times) {
  globalThis.IS_REACT_ACT_ENVIRONMENT = true;
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  await act(async () => root.render(h(Counter)));
  const button = container.querySelector('button');
  const time = await took(async () => {
    for (let n = 0; n < times; n++) {
      await act(turn);
      for (const [type, Kind, told] of events)
        act(() => {
          const init = { bubbles: true, cancelable: true, composed: true, view: window, ...told };
          button.dispatchEvent(new window[Kind](type, init));
        });
      await act(turn);
    }
  });
  if (button.textContent !== `Smoke ${times}`) throw new Error('the clicks were not heard');
  await act(async () => root.unmount());
  container.remove();
  globalThis.IS_REACT_ACT_ENVIRONMENT = undefined;
  return time;
}

/** A source that tells whoever listens. */
function source() {
  let tell;
  const subscribe = (listener) => {
    tell = typeof listener === 'function' ? listener : (value) => listener.next(value);
    return { unsubscribe: () => undefined };
  };
  return { subscribe, emit: (value) => tell(value) };
}

async function recorded(times) {
  const from = source();
  const recording = record(from);
  const time = await took(() => {
    for (let n = 0; n < times; n++) from.emit(n);
  });
  if (recording.values.length !== times) throw new Error('not all was recorded');
  return time;
}

async function pushed(times) {
  const from = source();
  const all = [];
  from.subscribe((value) => all.push([value, performance.now()]));
  return took(() => {
    for (let n = 0; n < times; n++) from.emit(n);
  });
}

const subjects = (times, options) =>
  took(async () => {
    for (let n = 0; n < times; n++) {
      await isolate(Counter, options);
      await takeDown();
    }
  });

async function paired(rounds, ours, floor) {
  const all = { ours: [], floor: [] };
  for (let round = 0; round < rounds; round++) {
    all.floor.push(await floor());
    all.ours.push(await ours());
  }
  const [one, other] = [middle(all.ours), middle(all.floor)];
  return { ours: one, floor: other, ratio: one / other };
}

/** What gestures, recordings and guards cost. */
export async function acting() {
  const unguarded = { logs: 'allowed', leaks: 'allowed' };
  await subjects(300, unguarded);
  return [
    {
      name: '100 clicks on a button that renders',
      against: 'dispatching the same events by hand, with the same flushing',
      goal: 2,
      why: 'a third of the difference finds out whether a person could reach the element, and words it for the chronicle. The rest is the step itself, which remembers the line that asked for it, and what a press concerns: labels, forms, popovers, the focus.',
      ...(await paired(
        9,
        () => clicked(100),
        () => dispatched(100),
      )),
    },
    {
      name: 'recording 100,000 values',
      against: 'pushing them to a list with the time',
      ...(await paired(
        9,
        () => recorded(100_000),
        () => pushed(100_000),
      )),
    },
    {
      name: '100 trivial subjects with all guards',
      against: 'the same with logs and leaks allowed',
      goal: 1.1,
      ...(await paired(
        15,
        () => subjects(100),
        () => subjects(100, unguarded),
      )),
    },
  ];
}
