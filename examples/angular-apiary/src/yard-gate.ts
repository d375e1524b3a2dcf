import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Session } from './session';

/** Lets only those in who have signed in. */
@Component({
  selector: 'yard-gate',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (session.keeper() !== null) {
      <p class="keeper">
        Signed in as <strong data-testid="keeper">{{ session.keeper() }}</strong>
        <button type="button" (click)="session.signOut()">Sign out</button>
      </p>
      <ng-content />
    } @else {
      <form class="gate" aria-label="Sign in" (ngSubmit)="session.signIn(name().trim())">
        <h2>Who is in the yard?</h2>
        <label>
          Keeper
          <input name="keeper" [(ngModel)]="name" autocomplete="off" />
        </label>
        <button type="submit" [disabled]="name().trim() === ''">Sign in</button>
      </form>
    }
  `,
  host: { style: 'display: contents' },
})
export class YardGate {
  protected readonly session = inject(Session);
  protected readonly name = signal('');
}
