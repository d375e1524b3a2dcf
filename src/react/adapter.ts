import * as React from 'react';
import type { Adapter } from '../stage/adapter';
import type { Kinds } from '../stage/isolate';
import { settle, settleNow } from './act';
import { door, loadReactDom } from './door';
import { containerOf, ownerName } from './fibers';
import { nameOf, unwrap } from './kinds';
import { mount } from './mount';

function running(container: Element): string | undefined {
  const fiber = door.internals?.getCurrentFiber?.() ?? null;
  return fiber && containerOf(fiber) === container ? ownerName(fiber) : undefined;
}

export const reactAdapter: Adapter & Kinds = {
  framework: 'React',
  nameOf,
  unwrap,
  prepare: loadReactDom,
  settle,
  settleNow,
  mount,
  running,
  // React 18 lets the window see what is thrown while rendering before it looks for a boundary.
  willReport: (container) => React.version.startsWith('18') && running(container) !== undefined,
};
