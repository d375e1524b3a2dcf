import { Injectable, signal } from '@angular/core';

@Injectable()
export class Keeper {
  readonly name = signal('Imke');
  readonly #names: string[] = [];

  rename(name: string): void {
    this.#names.push(name);
    this.name.set(name);
  }
}
