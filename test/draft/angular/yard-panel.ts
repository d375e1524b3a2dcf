import { Component, inject } from '@angular/core';
import { YardStore } from './yard-store';

@Component({
  selector: 'app-yard-panel',
  template: `
    @if (yard.isLoading()) {
      <p role="status">Fetching the yard</p>
    } @else {
      <p>The heaviest hive weighs {{ yard.heaviest() }} kg</p>
    }
  `,
})
export class YardPanel {
  readonly yard = inject(YardStore);

  constructor() {
    this.yard.load();
  }
}
