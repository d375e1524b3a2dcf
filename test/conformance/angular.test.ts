import 'simulacra/jest';
import { VERSION } from '@angular/core';
import { isolate, isolateWith, stub } from 'simulacra/angular';
import * as components from './angular';
import { conform } from './specification';

const { Board, Card, Desk, GateSign, Greeting, Keeper, Log, Pad, Patient, Ward, Weight, YardOpen } =
  components;

conform({
  framework: `Angular ${VERSION.full}`,
  isolate: isolate as never,
  isolateWith: isolateWith as never,
  stub,
  Keeper,
  listens: (name) => name,
  tells: (name) => name,
  note: '<p role="note">{{ hive.name }}</p>',
  wrappers: [YardOpen, [GateSign, { sign: 'Gate' }]],
  components: { Board, Card, Weight, Greeting, Desk, Pad, Patient, Ward, Log },
});
