import 'zone.js';
import 'simulacra/jest';
import { Component, VERSION } from '@angular/core';
import { role, text } from 'simulacra';
import { isolate, isolateWith, stub } from 'simulacra/angular';
import * as components from './angular';
import { conform } from './specification';

const { GateSign, Keeper, YardOpen, ...rest } = components;

conform({
  framework: `Angular ${VERSION.full} with zone.js`,
  isolate: isolate as never,
  isolateWith: isolateWith as never,
  stub,
  Keeper,
  listens: (name) => name,
  tells: (name) => name,
  note: '<p role="note">{{ hive.name }}</p>',
  wrappers: [YardOpen, [GateSign, { sign: 'Gate' }]],
  components: rest,
});

describe(`Angular ${VERSION.full} with zone.js, its own ways`, () => {
  it('renders what a classic field was set to, in a promise or a timer', async () => {
    @Component({ template: '<button (click)="go()">Go</button><p>{{ word }}</p>' })
    class Classic {
      word = 'now';
      go(): void {
        void Promise.resolve().then(() => (this.word = 'soon'));
        setTimeout(() => (this.word = 'late'), 10);
      }
    }
    const classic = await isolate(Classic);
    await classic.click(role('button'));
    expect(classic).toShow(text('soon'));
    await classic.appears(text('late'));
  });
});
