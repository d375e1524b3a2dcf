import { Component, Inject, NgModule, Optional } from '@angular/core';
import { CommonModule, DOCUMENT } from '@angular/common';

@Component({
  selector: 'app-old-yard',
  standalone: false,
  template: `<h2 *ngIf="title">{{ title }}</h2>`,
})
export class OldYard {
  title = 'The old yard';

  constructor(@Optional() @Inject(DOCUMENT) readonly page: Document | null) {}
}

@NgModule({ declarations: [OldYard], imports: [CommonModule], exports: [OldYard] })
export class OldYardModule {}
