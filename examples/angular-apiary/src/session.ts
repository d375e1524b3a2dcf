import { Injectable, signal } from '@angular/core';

/** Who works in the yard; null when nobody is signed in. */
@Injectable()
export class Session {
  readonly keeper = signal<string | null>(null);

  signIn(keeper: string): void {
    this.keeper.set(keeper);
  }

  signOut(): void {
    this.keeper.set(null);
  }
}
