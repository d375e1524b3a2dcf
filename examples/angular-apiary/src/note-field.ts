import { ChangeDetectionStrategy, Component, input, output, viewChild, type ElementRef } from '@angular/core';

@Component({
  selector: 'note-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="note">
      Note
      <textarea #area [value]="text()" (input)="write.emit(area.value)"></textarea>
    </label>
  `,
  host: { style: 'display: contents' },
})
export class NoteField {
  readonly text = input.required<string>();
  readonly write = output<string>();
  private readonly area = viewChild.required<ElementRef<HTMLTextAreaElement>>('area');

  begin(): void {
    this.area().nativeElement.focus();
  }
}
