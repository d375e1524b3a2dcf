import type { Adapter } from '../stage/adapter';
import type { Kinds } from '../stage/isolate';
import { settle, settleNow } from './act';
import { loadReactDom } from './door';
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
};
