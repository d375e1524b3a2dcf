import { Component } from '@angular/core';
import { Session } from './session';

@Component({
  selector: 'session-provider',
  providers: [Session],
  template: '<ng-content />',
  host: { style: 'display: contents' },
})
export class SessionProvider {}
