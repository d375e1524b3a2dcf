import { Component, DestroyRef, inject, input, linkedSignal } from '@angular/core';

@Component({
  selector: 'app-smoke-clock',
  template: `<p role="timer">
    {{ left() === 0 ? 'The smoker is out' : left() + ' minutes of smoke left' }}
  </p>`,
})
export class SmokeClock {
  readonly minutes = input(3);
  readonly left = linkedSignal(() => this.minutes());

  constructor() {
    const timer = setInterval(() => this.left.update((now) => Math.max(0, now - 1)), 60_000);
    inject(DestroyRef).onDestroy(() => clearInterval(timer));
  }
}
