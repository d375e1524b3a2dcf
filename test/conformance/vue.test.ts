import 'simulacra/jest';
import { isolate, isolateWith, stub } from 'simulacra/vue';
import { h, version } from 'vue';
import * as components from './vue';
import { conform } from './specification';

const { Board, Card, Desk, GateSign, Greeting, Keeper, Log, Pad, Patient, Ward, Weight, YardOpen } =
  components;

conform({
  framework: `Vue ${version}`,
  isolate: isolate as never,
  isolateWith: isolateWith as never,
  stub,
  Keeper,
  listens: (name) => `on${name[0]!.toUpperCase()}${name.slice(1)}`,
  tells: (name) => name,
  note: ({ hive }: { hive: { name: string } }) => h('p', { role: 'note' }, hive.name),
  wrappers: [YardOpen, [GateSign, { sign: 'Gate' }]],
  components: { Board, Card, Weight, Greeting, Desk, Pad, Patient, Ward, Log },
});
