import { isolate, isolateWith, states, stub } from 'simulacra/vue';
import { h, version } from 'vue';
import { Bench } from './bench-vue';
import type { Kit } from './specification';
import * as components from './vue';

const { GateSign, Keeper, Unread, YardOpen, ...rest } = components;

/** What Vue brings along. */
export const vueKit: Kit = {
  framework: `Vue ${version}`,
  isolate: isolate as never,
  isolateWith: isolateWith as never,
  stub,
  states,
  Keeper,
  Unread,
  listens: (name) => `on${name[0]!.toUpperCase()}${name.slice(1)}`,
  tells: (name) => name,
  note: ({ hive }: { hive: { name: string } }) => h('p', { role: 'note' }, hive.name),
  wrappers: [YardOpen, [GateSign, { sign: 'Gate' }]],
  scaleFeed: () => import('./ScaleFeed.vue'),
  components: { ...rest, Bench },
};
