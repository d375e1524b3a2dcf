import 'simulacra/jest';
import { useEffect, useRef, useState } from 'react';
import { role, text } from 'simulacra';
import { isolate } from 'simulacra/react';

/* What a simulated page lacks is supplied, and behaves as the standard says of a page without a layout. */

const soon = () => new Promise((resolve) => setTimeout(resolve, 20));
const make = (markup: string): HTMLElement => {
  document.body.innerHTML = markup;
  return document.body.firstElementChild as HTMLElement;
};
afterEach(() => void (document.body.innerHTML = ''));

it.each<[string, string, () => unknown]>([
  ['matchMedia', '(min-width: 600px)', () => matchMedia('(min-width: 600px)').matches === innerWidth >= 600],
  [
    'matchMedia',
    'a range',
    () =>
      matchMedia(`(${innerWidth}px <= width)`).matches || matchMedia(`(width >= ${innerWidth}px)`).matches,
  ],
  [
    'matchMedia',
    'not, and, a list',
    () => matchMedia('print, not all and (min-width: 1px), screen and (hover: hover)').matches,
  ],
  ['matchMedia', 'print', () => !matchMedia('print').matches],
  ['matchMedia', 'no preference', () => !matchMedia('(prefers-reduced-motion: reduce)').matches],
  ['matchMedia', 'a bare preference', () => !matchMedia('(prefers-reduced-motion)').matches],
  [
    'matchMedia',
    'listeners',
    () => matchMedia('print').addEventListener('change', () => undefined) === undefined,
  ],
  ['CSS.escape', 'a digit first', () => CSS.escape('1a:b') === '\\31 a\\:b'],
  ['CSS.escape', 'a lone dash', () => CSS.escape('-') === '\\-'],
  ['CSS.supports', 'a pair', () => CSS.supports('display', 'block') && !CSS.supports('hive-colour', 'red')],
  ['CSS.supports', 'a condition', () => CSS.supports('(display: block)')],
  ['visualViewport', 'its size', () => visualViewport!.width === innerWidth && visualViewport!.scale === 1],
  [
    'scrollTo',
    'an element',
    () => {
      const box = make('<div></div>');
      box.scrollTo({ top: 40 });
      box.scrollBy(0, 2);
      return box.scrollTop === 42;
    },
  ],
  [
    'innerText',
    'is written and read',
    () => {
      const box = make('<p>Anemone</p>');
      box.innerText = 'Borage';
      return box.innerText === 'Borage' && box.textContent === 'Borage';
    },
  ],
  [
    'setPointerCapture',
    'is kept',
    () => {
      const box = make('<p></p>');
      box.setPointerCapture(1);
      const had = box.hasPointerCapture(1);
      box.releasePointerCapture(1);
      return had && !box.hasPointerCapture(1);
    },
  ],
  [
    'checkVisibility',
    'of what is not displayed',
    () => !make('<p style="display: none"></p>').checkVisibility(),
  ],
  [
    'what it does not implement',
    'and prints no error for it',
    () => {
      const { error } = console;
      const printed: unknown[] = [];
      console.error = (...said: unknown[]) => void printed.push(...said);
      const canvas = document.createElement('canvas');
      const got = [
        canvas.getContext('2d'),
        canvas.toDataURL(),
        getComputedStyle(make('<p></p>'), '::before').display,
      ];
      console.error = error;
      return String(got) === ',data:,,block' && printed.length === 0;
    },
  ],
  ['execCommand', 'says it can do nothing', () => document.execCommand('copy') === false],
  ['Range', 'has no size', () => document.createRange().getBoundingClientRect().width === 0],
  [
    'getBBox',
    'has no size',
    () => {
      const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
      document.body.append(svg);
      return svg.getBBox().width === 0;
    },
  ],
  ['createObjectURL', 'gives an address', () => /^blob:/.test(URL.createObjectURL(new Blob(['x'])))],
  ['fonts', 'are loaded', () => document.fonts.status === 'loaded' && document.fonts.check('12px serif')],
  [
    'a dialog',
    'opens and closes with a value',
    async () => {
      const dialog = make('<dialog></dialog>') as HTMLDialogElement;
      const told: string[] = [];
      dialog.addEventListener('close', () => told.push(dialog.returnValue));
      dialog.showModal();
      const was = dialog.open;
      dialog.close('saved');
      await soon();
      return was && !dialog.open && told[0] === 'saved';
    },
  ],
  [
    'a dialog',
    'off the page is not shown as a modal one',
    () => {
      const dialog = document.createElement('dialog');
      expect(() => dialog.showModal()).toThrow('not on the page');
      return !dialog.open;
    },
  ],
  [
    'a popover',
    'tells of being toggled, in a task of its own',
    async () => {
      const box = make('<p popover></p>');
      const told: string[] = [];
      box.addEventListener('toggle', (event) => told.push((event as ToggleEvent).newState));
      box.showPopover();
      const atOnce = told.length;
      await soon();
      box.togglePopover();
      await soon();
      return atOnce === 0 && told.join() === 'open,closed';
    },
  ],
  [
    'a popover',
    'must be one',
    () => {
      try {
        make('<p></p>').showPopover();
      } catch (error) {
        return (error as Error).name === 'NotSupportedError';
      }
      return false;
    },
  ],
])('%s: %s', async (_, __, holds) => {
  expect(await holds()).toBe(true);
});

it('tells of an element in view, and of no size', async () => {
  const told: unknown[] = [];
  const box = make('<p></p>');
  const watching = new IntersectionObserver((entries) =>
    told.push(...entries.map((entry) => [entry.target, entry.isIntersecting])),
  );
  watching.observe(box);
  watching.observe(box);
  new ResizeObserver(() => told.push('resized')).observe(box);
  await soon();
  expect(told).toEqual([[box, true]]);
  watching.observe(document.body);
  watching.unobserve(document.body);
  await soon();
  expect(told).toHaveLength(1);
});

it('passes messages, also those sent before anybody listened', async () => {
  const { port1, port2 } = new MessageChannel();
  const heard: unknown[] = [];
  port2.postMessage('first');
  await soon();
  port1.onmessage = ({ data }) => heard.push(data);
  port2.postMessage({ weight: 31.2 });
  expect(heard).toEqual(['first']);
  await soon();
  expect(heard).toEqual(['first', { weight: 31.2 }]);
  port1.close();
  port2.postMessage('lost');
  await soon();
  expect(heard).toHaveLength(2);
});

it('has idle time, and animations that are over', async () => {
  const idle = await new Promise<IdleDeadline>((resolve) => requestIdleCallback(resolve));
  expect(idle.timeRemaining()).toBeGreaterThan(0);
  cancelIdleCallback(requestIdleCallback(() => expect(true).toBe(false)));
  const animation = make('<p></p>').animate([{ opacity: 0 }], 300);
  let finished = false;
  animation.onfinish = () => void (finished = true);
  await animation.finished;
  await soon();
  expect(finished).toBe(true);
});

it('lets a component come up that uses them, and a test write over them', async () => {
  const Chart = () => {
    const box = useRef<HTMLDivElement>(null);
    const [seen, setSeen] = useState(false);
    const isWide = matchMedia('(min-width: 1px)').matches;
    useEffect(() => {
      const watching = new IntersectionObserver(([entry]) => setSeen(entry!.isIntersecting));
      watching.observe(box.current!);
      box.current!.scrollIntoView();
      return () => watching.disconnect();
    }, []);
    return (
      <div ref={box}>{seen && isWide ? <p role="img" aria-label="Weight of the hive" /> : 'Scroll down'}</div>
    );
  };
  const chart = await isolate(Chart);
  expect(chart).toShow(role('img', 'Weight of the hive'));
  await chart.takeDown();
  const { matchMedia: own } = window;
  window.matchMedia = (() => ({ matches: false })) as never;
  const narrow = await isolate(Chart);
  expect(narrow).toShow(text('Scroll down'));
  window.matchMedia = own;
});

// Vue wraps what has no name of its own in a proxy, which could not call methods that read private fields.
it.each([
  ['ResizeObserver', () => new ResizeObserver(() => undefined)],
  ['IntersectionObserver', () => new IntersectionObserver(() => undefined)],
  ['MessagePort', () => new MessageChannel().port1],
  ['DataTransfer', () => new DataTransfer()],
  ['DataTransferItemList', () => new DataTransfer().items],
  ['PointerEvent', () => new PointerEvent('pointerdown')],
  ['ClipboardEvent', () => new ClipboardEvent('copy')],
])('%s is named as on the platform', (name, made) => {
  expect(Object.prototype.toString.call(made())).toBe(`[object ${name}]`);
});
