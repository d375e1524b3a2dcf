import { Component } from '@angular/core';
import { height, phase } from '../tides';

const taken = phase;

@Component({ selector: 'a-shore', template: '<p>{{ text }}</p>' })
export class Shore {
  readonly text = `${taken} ${height}`;
}
