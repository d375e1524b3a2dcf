import { isolate, isolateWith, states, stub } from 'simulacra/react';
import { version } from 'react';
import { Bench } from './bench-react';
import * as components from './react';
import type { Kit } from './specification';

const { GateSign, Keeper, Unread, YardOpen, ...rest } = components;
const listener = (name: string) => `on${name[0]!.toUpperCase()}${name.slice(1)}`;

/** What React brings along. */
export const reactKit: Kit = {
  framework: `React ${version}`,
  isolate,
  isolateWith,
  stub,
  states,
  Keeper,
  Unread,
  listens: listener,
  tells: listener,
  note: ({ hive }: { hive: { name: string } }) => <p role="note">{hive.name}</p>,
  wrappers: [YardOpen, [GateSign, { sign: 'Gate' }]],
  scaleFeed: () => import('./scale-react'),
  components: { ...rest, Bench },
};
