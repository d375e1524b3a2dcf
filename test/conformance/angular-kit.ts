import { isolate, isolateWith, states, stub } from 'simulacra/angular';
import * as components from './angular';
import { Bench } from './bench-angular';
import type { Kit } from './specification';

const { GateSign, Keeper, Unread, YardOpen, ...rest } = components;

/** What Angular brings along, however it detects changes. */
export const angularKit = (framework: string): Kit => ({
  framework,
  isolate: isolate as never,
  isolateWith: isolateWith as never,
  stub,
  states,
  Keeper,
  Unread,
  listens: (name) => name,
  tells: (name) => name,
  note: '<p role="note">{{ hive.name }}</p>',
  wrappers: [YardOpen, [GateSign, { sign: 'Gate' }]],
  scaleFeed: () => import('./scale-angular'),
  components: { ...rest, Bench },
});
