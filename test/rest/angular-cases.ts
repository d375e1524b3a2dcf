import { AsyncPipe } from '@angular/common';
import { HttpClient } from '@angular/common/http';
import {
  afterRenderEffect,
  Component,
  computed,
  effect,
  inject,
  input,
  resource,
  signal,
} from '@angular/core';
import { concatMap, delay, from, map, of, timer } from 'rxjs';
import { microtasks, type Case } from './runs';

@Component({ selector: 'rest-resource', template: '<output>{{ state.value() ?? "loading" }}</output>' })
class Resource {
  readonly yard = signal('north');
  readonly state = resource({
    params: this.yard,
    loader: async ({ params }) => {
      await microtasks(3);
      if (params === 'north') this.yard.set('east');
      return params === 'east' ? 'done' : params;
    },
  });
}

@Component({
  selector: 'rest-piped',
  imports: [AsyncPipe],
  template: '<output>{{ (state | async) ?? "waiting" }}</output>',
})
class Piped {
  readonly state = from(microtasks(3)).pipe(concatMap(() => of('done')));
}

@Component({
  selector: 'yard-delayed',
  imports: [AsyncPipe],
  template: '<output>{{ (state | async) ?? "waiting" }}</output>',
})
class Delayed {
  readonly state = timer(0).pipe(
    delay(0),
    map(() => 'done'),
  );
}

@Component({ selector: 'rest-effects', template: '<output>{{ shown() }}</output>' })
class Effects {
  readonly count = signal(0);
  readonly shown = computed(() => (this.count() === 5 ? 'done' : this.count()));
  readonly counting = effect(() => {
    const now = this.count();
    if (now < 5) void microtasks(now).then(() => this.count.set(now + 1));
  });
}

@Component({ selector: 'rest-rendered', template: '<output>{{ count() === 3 ? "done" : count() }}</output>' })
class Rendered {
  readonly count = signal(0);
  readonly counting = afterRenderEffect(() => {
    if (this.count() < 3) this.count.update((now) => now + 1);
  });
}

// Reads its input in an effect, as components of libraries do.
@Component({ selector: 'rest-reader', template: '' })
class Reader {
  readonly given = input<{ readonly word: string }>();
  readonly text = signal('');
  readonly reading = effect(() => this.text.set(this.given()?.word ?? ''));
}

/** Gives another object each time it is asked. */
@Component({
  selector: 'rest-anew',
  imports: [Reader],
  template: '<output>done<rest-reader [given]="make()" /></output>',
})
class Anew {
  readonly make = () => ({ word: 'now' });
}

@Component({ selector: 'rest-fetching', template: '<output>{{ state() }}</output>' })
class Fetching {
  readonly state = signal('before');
  constructor() {
    const http = inject(HttpClient);
    http
      .get<string>('/api/first')
      .pipe(concatMap((next) => http.get(`/api/${next}`, { responseType: 'text' })))
      .subscribe((state) => this.state.set(state));
  }
}

@Component({
  selector: 'rest-going',
  template: '<button (click)="go()">Go</button><output>{{ state() }}</output>',
})
class Going {
  readonly state = signal('before');
  async go() {
    this.state.set('going');
    await microtasks(4);
    await new Promise((resolve) => setTimeout(resolve, 0));
    this.state.set('done');
  }
}

const network = { 'GET /api/first': '"second"'.slice(1, -1), 'GET /api/second': () => new Response('done') };
export const cases: Case[] = [
  ['a resource that loads again', Resource],
  ['the async pipe over promises', Piped],
  ['the async pipe over timers', Delayed],
  ['effects over promises', Effects],
  ['effects after rendering', Rendered],
  ['requests in a row by HttpClient', Fetching, { network }],
  ['a listener that waits', Going],
  ['an input that is another object at each check', Anew],
  ['an input of a stub that is another object at each check', Anew, { stub: [Reader] }],
];
