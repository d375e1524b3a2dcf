import { ChangeDetectionStrategy, Component, computed, effect, signal } from '@angular/core';
import { injectAlerts } from './alerts';

/** One alert every four seconds, from the first again after the last. */
@Component({
  selector: 'alert-ticker',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shown(); as alert) {
      <section class="ticker" aria-label="Alerts">
        <p aria-live="polite">{{ alert.text }}</p>
        <button type="button" (click)="go(-1)">Previous</button>
        <button type="button" [attr.aria-pressed]="isPaused()" (click)="isPaused.set(!isPaused())">
          Pause
        </button>
        <button type="button" (click)="go(1)">Next</button>
      </section>
    }
  `,
})
export class AlertTicker {
  readonly #alerts = injectAlerts();
  protected readonly isPaused = signal(false);
  readonly #at = signal(0);
  protected readonly shown = computed(() => this.#alerts()[this.#at()]);

  constructor() {
    // Whoever has moved on by hand gets four seconds to read.
    effect((onCleanup) => {
      this.#at();
      if (this.isPaused() || this.#alerts().length === 0) return;
      const timer = setTimeout(() => this.go(1), 4000);
      onCleanup(() => clearTimeout(timer));
    });
  }

  protected go(by: number): void {
    const { length } = this.#alerts();
    this.#at.update((at) => (at + by + length) % length);
  }
}
