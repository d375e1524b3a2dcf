import './page.mjs';
import { isolate } from 'simulacra/react';
import { takeDown } from 'simulacra';
import { act, createElement as h, useEffect, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { took, turn } from './measure.mjs';

/** A component that starts timers, one each millisecond, and shows how many have run at every so many. */
function Clock({ times, shows }) {
  const [ran, show] = useState(0);
  useEffect(() => {
    let count = 0;
    const timers = Array.from({ length: times }, (_, n) =>
      globalThis.setTimeout(() => {
        if (++count % shows === 0) show(count);
      }, n + 1),
    );
    return () => timers.forEach((timer) => globalThis.clearTimeout(timer));
  }, [times, shows]);
  return h('p', null, ran);
}

async function stepped(times, shows) {
  const clock = await isolate(Clock, { props: { times, shows }, time: 'virtual' });
  const time = await took(() => clock.time.advance(times));
  if (clock.container.textContent !== String(times)) throw new Error('the clock did not run');
  await takeDown();
  return time;
}

/** The same calls by hand, with nothing around them: a turn of the event loop after each. */
async function bare(times) {
  let count = 0;
  const timers = Array.from({ length: times }, () => () => void count++);
  return took(async () => {
    for (const run of timers) {
      run();
      await turn();
    }
  });
}

/** A root that is rendered as often, and brought to rest each time. */
async function bareRenders(times) {
  globalThis.IS_REACT_ACT_ENVIRONMENT = true;
  let show;
  const Shown = () => {
    const [ran, set] = useState(0);
    show = set;
    return h('p', null, ran);
  };
  const container = document.body.appendChild(document.createElement('div'));
  const root = createRoot(container);
  await act(async () => root.render(h(Shown)));
  const time = await took(async () => {
    for (let n = 1; n <= times; n++) {
      await act(async () => show(n));
      await act(turn);
    }
  });
  await act(async () => root.unmount());
  container.remove();
  globalThis.IS_REACT_ACT_ENVIRONMENT = undefined;
  return time;
}

/** What it costs to step a clock through very many timers. */
export async function timing() {
  const times = 100_000;
  await stepped(1000, 1000);
  const floor = await bare(times);
  const ours = await stepped(times, times);
  const renders = await stepped(1000, 1);
  const floorOfRenders = await bareRenders(1000);
  return [
    {
      name: 'stepping a virtual clock through 100,000 timers',
      against: 'calling them by hand, a turn each',
      goal: 5,
      ours,
      floor,
      ratio: ours / floor,
    },
    {
      name: 'the same through 1,000 timers that each render',
      against: 'rendering by hand, with the same flushing',
      goal: 2,
      ours: renders,
      floor: floorOfRenders,
      ratio: renders / floorOfRenders,
    },
  ];
}
