import { Component, input } from '@angular/core';

@Component({
  selector: 'app-frame',
  template: `
    <section [attr.aria-label]="title()">
      <h2>{{ title() }}</h2>
      <ng-content />
    </section>
  `,
})
export class Frame {
  readonly title = input.required<string>();
}
