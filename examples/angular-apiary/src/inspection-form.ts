import { ChangeDetectionStrategy, Component, inject, input, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { doubtOf, Refused } from '../../shared/inspection';
import { YardInspections } from './inspections';
import { NotePad } from './note-pad';

/** Logs what a keeper has seen in a hive. */
@Component({
  selector: 'inspection-form',
  imports: [FormsModule, NotePad],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="inspection" aria-label="Inspection" (ngSubmit)="submit()">
      <label>
        Varroa per 100 bees
        <input name="varroa" inputmode="numeric" [(ngModel)]="varroa" />
      </label>
      <note-pad [text]="note()" (write)="note.set($event)" />
      <button type="submit" [disabled]="state() === 'saving'">
        {{ state() === 'saving' ? 'Logging' : 'Log inspection' }}
      </button>
      @if (state() === 'saved') {
        <p role="status">The inspection is logged</p>
      }
      @if (refused()) {
        <p role="alert">{{ refused() }}</p>
      }
    </form>
  `,
  host: { style: 'display: contents' },
})
export class InspectionForm {
  readonly hiveId = input.required<string>();
  protected readonly varroa = signal('');
  protected readonly note = signal('');
  protected readonly state = signal<'open' | 'saving' | 'saved'>('open');
  protected readonly refused = signal<string | undefined>(undefined);
  readonly #inspections = inject(YardInspections);

  protected async submit(): Promise<void> {
    this.refused.set(doubtOf(this.varroa()));
    if (this.refused()) return;
    this.state.set('saving');
    const inspection = { hiveId: this.hiveId(), varroa: Number(this.varroa()), note: this.note() };
    try {
      await this.#inspections.log(inspection);
      this.state.set('saved');
    } catch (error) {
      this.state.set('open');
      this.refused.set(error instanceof Refused ? error.message : 'It could not be logged');
    }
  }
}
