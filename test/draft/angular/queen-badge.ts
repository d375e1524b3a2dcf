import { Component, input } from '@angular/core';

@Component({
  selector: 'app-queen-badge',
  template: `
    <p role="status">{{ colour() === 'white' ? 'A queen of this year' : 'A queen marked ' + colour() }}</p>
    @if (marked()) {
      <strong>Marked by hand</strong>
    }
  `,
})
export class QueenBadge {
  readonly colour = input.required<'white' | 'yellow' | 'red'>();
  readonly marked = input(false);
}
