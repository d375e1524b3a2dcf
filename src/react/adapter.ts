import type { Adapter } from '../stage/adapter';
import type { Kinds } from '../stage/isolate';
import { settle, settleNow } from './act';
import { door, loadReactDom } from './door';
import { containerOf, ownerName } from './fibers';
import { nameOf, unwrap } from './kinds';
import { mount } from './mount';

export const reactAdapter: Adapter & Kinds = {
  framework: 'React',
  nameOf,
  unwrap,
  prepare: async () => void (await loadReactDom()),
  settle,
  settleNow,
  mount,
  running(container) {
    const fiber = door.internals?.getCurrentFiber?.() ?? null;
    return fiber && containerOf(fiber) === container ? ownerName(fiber) : undefined;
  },
};
