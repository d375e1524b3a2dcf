import { Component, signal, VERSION } from '@angular/core';

/** Its text would stay for as long as its animation does, which is for ever. */
@Component({
  selector: 'fading-sign',
  template: `
    <button (click)="here.set(false)">Leave</button>
    @if (here()) {
      <p (animate.leave)="neverOver()">here</p>
    }
  `,
})
export class Fading {
  readonly here = signal(true);
  neverOver(): void {}
}

export const version = VERSION.full;
