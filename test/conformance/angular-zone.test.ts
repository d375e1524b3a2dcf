import 'zone.js';
import 'simulacra/jest';
import { Component, VERSION } from '@angular/core';
import { role, text } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { angularKit } from './angular-kit';
import { conform } from './specification';

conform(angularKit(`Angular ${VERSION.full} with zone.js`));

describe(`Angular ${VERSION.full} with zone.js, its own ways`, () => {
  it('renders what a classic field was set to, in a promise or a timer', async () => {
    @Component({ template: '<button (click)="go()">Go</button><p>{{ word }}</p>' })
    class Classic {
      word = 'now';
      go(): void {
        void Promise.resolve().then(() => (this.word = 'soon'));
        setTimeout(() => (this.word = 'late'), 300);
      }
    }
    const classic = await isolate(Classic);
    await classic.click(role('button'));
    expect(classic).toShow(text('soon'));
    await classic.appears(text('late'));
  });
});
