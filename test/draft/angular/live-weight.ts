import { Component } from '@angular/core';
import { injectWeight } from './inject-weight';

@Component({
  selector: 'app-live-weight',
  template: `<output aria-label="Weight">{{ kilograms() }} kg</output>`,
})
export class LiveWeight {
  readonly kilograms = injectWeight();
}
