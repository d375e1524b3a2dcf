import { Component, inject } from '@angular/core';
import { Keeper } from './keeper';

@Component({
  selector: 'app-keeper-name',
  template: `<p>
    Signed in as <b>{{ keeper.name() }}</b>
  </p>`,
})
export class KeeperName {
  readonly keeper = inject(Keeper);
}
