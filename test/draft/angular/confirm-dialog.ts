import { Component, input, output } from '@angular/core';

@Component({
  selector: 'app-confirm-dialog',
  template: `
    @if (isOpen()) {
      <div role="dialog" aria-label="Please confirm">
        <p>{{ question() }}</p>
        <button (click)="answered.emit(true)">Yes</button>
        <button (click)="answered.emit(false)">No</button>
      </div>
    }
  `,
})
export class ConfirmDialog {
  readonly isOpen = input.required<boolean>();
  readonly question = input.required<string>();
  readonly answered = output<boolean>();
}
