import type { Adapter } from '../stage/adapter';
import { isPending, pass, prepare, settle, withZone } from './application';
import { isComponent, nameOf, nameOfToken } from './definitions';
import { isRunning, mount } from './mount';
import { madeOf, propsOf, refuseOptions, slotsOf, whyNone } from './bindings';

export const angularAdapter: Adapter = {
  framework: 'Angular',
  isSubject: isComponent,
  nameOf,
  unwrap: (component) => component,
  madeOf,
  whyNone,
  nameOfToken,
  options: ['slots', 'defer'],
  outputHint: 'The outputs of a component are those it declares:   opened = output<string>()',
  prepare,
  settle,
  settleNow: settle,
  pass,
  refuseOptions,
  propWord: 'input',
  propsOf,
  slotsOf,
  mount,
  isPending,
  stillHint: () =>
    withZone()
      ? []
      : [
          'Without zone.js Angular renders again where a signal or an input changes, or where it is told to.',
          "Keep it in a signal; or, where the application runs with zone.js, load that:   setupFiles: ['zone.js']",
        ],
  running: (container) =>
    isRunning(container) ? (container.getAttribute('data-subject') ?? undefined) : undefined,
};
