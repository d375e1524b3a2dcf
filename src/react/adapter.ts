import * as React from 'react';
import type { Adapter } from '../stage/adapter';
import { settle, settleNow } from './act';
import { bridge, loadReactDom } from './bridge';
import { containerOf, ownerName } from './fibers';
import { madeOf, nameOf, unwrap } from './kinds';
import { mount } from './mount';
import { nameOfContext } from './origins';
import { takeContainer } from './roots';
import { isPending, owns } from './work';

function running(container: Element): string | undefined {
  const fiber = bridge.internals?.getCurrentFiber?.() ?? null;
  return fiber && containerOf(fiber) === container ? ownerName(fiber) : undefined;
}

export const reactAdapter: Adapter = {
  framework: 'React',
  propWord: 'prop',
  nameOf,
  unwrap,
  madeOf,
  nameOfToken: (context) => nameOf(context) ?? nameOfContext(context),
  options: [],
  outputHint: 'Give the prop a spy, which keeps its calls:   props: { onOpen: spy() }',
  prepare: loadReactDom,
  settle,
  settleNow,
  mount,
  takeContainer,
  running,
  isPending,
  owns,
  // React 18 reports a rendering error to the window before it looks for a boundary.
  willReport: (container) => React.version.startsWith('18') && running(container) !== undefined,
};
