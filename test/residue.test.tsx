import 'simulacra/jest';
import { useEffect, useState } from 'react';
import { hold, part, role, takeDown } from 'simulacra';
import { isolate } from 'simulacra/react';
import { HiveBoard } from '../examples/react-apiary/src/HiveBoard';
import { HiveCard } from '../examples/react-apiary/src/HiveCard';
import { hives } from '../examples/shared/hive';

const props = { yard: 'north' };

/** Every listener the page has, counted as they come and go. */
function countListeners(target: EventTarget) {
  const live = new Map<string, number>();
  const { addEventListener, removeEventListener } = target;
  target.addEventListener = function (
    type: string,
    listener: EventListener,
    options?: boolean | AddEventListenerOptions,
  ) {
    live.set(type, (live.get(type) ?? 0) + 1);
    addEventListener.call(this, type, listener, options);
  };
  target.removeEventListener = function (
    type: string,
    listener: EventListener,
    options?: boolean | EventListenerOptions,
  ) {
    live.set(type, (live.get(type) ?? 0) - 1);
    removeEventListener.call(this, type, listener, options);
  };
  return () => [...live].filter(([, n]) => n !== 0);
}

it('leaves nothing behind, however often', async () => {
  const once = async (answer: unknown) => {
    const board = await isolate(HiveBoard, {
      props,
      stub: answer === hives ? [HiveCard] : [],
      network: { 'GET /api/hives': answer as object },
    });
    if (answer === hives) expect(board).toShow(part(HiveCard), { times: 3 });
    await takeDown();
  };
  await once(hives);
  const listeners = countListeners(window);
  const globals = Object.getOwnPropertyNames(globalThis).sort().join();
  const methods = () => Object.values(Object.getOwnPropertyDescriptors(console));
  const [before, { fetch, Response }] = [methods(), globalThis];
  for (let n = 0; n < 20; n++) {
    await once(hives);
    await once(hold());
  }
  expect(document.body.innerHTML).toBe('');
  expect(listeners()).toEqual([]);
  expect(Object.getOwnPropertyNames(globalThis).sort().join()).toBe(globals);
  expect([globalThis.fetch, globalThis.Response]).toEqual([fetch, Response]);
  expect(
    methods().every(({ value, get }, at) => Object.is(value, before[at]!.value) && get === before[at]!.get),
  ).toBe(true);
});

it('is taken down also when the component cannot be rendered', async () => {
  const Ill = () => {
    useEffect(() => {
      throw new Error('in an effect');
    });
    return <p>Ill</p>;
  };
  await expect(isolate(Ill)).rejects.toMatchObject({ code: 'SIM-RENDER-THREW' });
  expect(document.body.innerHTML).toBe('');
  await expect(fetch('/api/hives')).rejects.toThrow('Failed to fetch');
  await expect(takeDown()).rejects.toMatchObject({ code: 'SIM-CALL-NOBODY' });
});

it('takes down in reverse order, and all of it, whatever complains', async () => {
  const order: string[] = [];
  const Leaver = ({ name }: { name: string }) => {
    useEffect(() => () => void order.push(name), [name]);
    return <p>{name}</p>;
  };
  await isolate(Leaver, { props: { name: 'first' } });
  await isolate(Leaver, { props: { name: 'second' }, stub: ['Never'] });
  await isolate(Leaver, { props: { name: 'third' } });
  await expect(takeDown()).rejects.toMatchObject({ code: 'SIM-STUB-UNUSED' });
  expect(order).toEqual(['third', 'second', 'first']);
  await expect(takeDown()).resolves.toBeUndefined();
});

it('sees an update between two steps without a word from the test', async () => {
  const Clock = () => {
    const [ticks, setTicks] = useState(0);
    useEffect(() => {
      const timer = setInterval(() => setTicks((n) => n + 1), 2);
      return () => clearInterval(timer);
    }, []);
    return <p role="timer">{ticks}</p>;
  };
  const clock = await isolate(Clock);
  await new Promise((resolve) => setTimeout(resolve, 15));
  expect(Number(clock.find(role('timer')).textContent)).toBeGreaterThan(0);
  expect(clock.chronicle.of('logged')).toEqual([]);
});
