import { Component, output, signal } from '@angular/core';
import { FormControl, ReactiveFormsModule, Validators } from '@angular/forms';

@Component({
  selector: 'app-varroa-form',
  imports: [ReactiveFormsModule],
  template: `
    <form aria-label="Inspection" (submit)="log()">
      <label>Varroa per 100 bees <input [formControl]="varroa" /></label>
      <button [disabled]="varroa.invalid">Log</button>
      @if (saved()) {
        <p role="status">Logged</p>
      }
    </form>
  `,
})
export class VarroaForm {
  readonly varroa = new FormControl('', { nonNullable: true, validators: [Validators.required] });
  readonly saved = signal(false);
  readonly logged = output<number>();

  log(): void {
    this.logged.emit(Number(this.varroa.value));
    this.saved.set(true);
  }
}
