import { DatePipe } from '@angular/common';
import { Component, input } from '@angular/core';

@Component({
  selector: 'app-today',
  imports: [DatePipe],
  template: `<h2>Good day, {{ keeper() }}: it is {{ now | date: 'EEEE' : 'UTC' }}</h2>`,
})
export class Today {
  readonly keeper = input.required<string>();
  readonly now = new Date();
}
