import { ChangeDetectionStrategy, Component, input, output, viewChild } from '@angular/core';
import { NoteField } from './note-field';

/** A field for notes, and a button that leads there. */
@Component({
  selector: 'note-pad',
  imports: [NoteField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="pad">
      <button type="button" (click)="field().begin()">Write a note</button>
      <note-field [text]="text()" (write)="write.emit($event)" />
    </div>
  `,
  host: { style: 'display: contents' },
})
export class NotePad {
  readonly text = input.required<string>();
  readonly write = output<string>();
  protected readonly field = viewChild.required(NoteField);
}
