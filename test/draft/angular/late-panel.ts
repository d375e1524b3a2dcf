import { Component } from '@angular/core';
import { Frame } from './frame';

@Component({
  selector: 'app-late-panel',
  imports: [Frame],
  template: `
    @defer (on timer(2s)) {
      <app-frame title="Notes">Keep the entrance clear</app-frame>
    } @placeholder {
      <p role="status">Fetching the panel</p>
    }
  `,
})
export class LatePanel {}
