import 'simulacra/jest';
import { label, role, text } from 'simulacra';
import { isolate, startAt } from 'simulacra/angular';

// recipe: Angular's Router
import { Component, inject, input } from '@angular/core';
import { provideRouter, RouterLink, RouterOutlet, withComponentInputBinding } from '@angular/router';

@Component({
  selector: 'hive-page',
  imports: [RouterLink],
  template: `<p>Hive {{ hiveId() }} <a routerLink="/">Back</a></p>`,
})
class HivePage {
  readonly hiveId = input<string>();
}
@Component({ selector: 'yard-page', imports: [RouterOutlet], template: '<router-outlet />' })
class YardPage {}

test('a page is given its address, and where it leads can be asserted', async () => {
  const routes = [
    { path: 'hives/:hiveId', component: HivePage },
    { path: '', children: [] },
  ];
  const page = await isolate(YardPage, {
    wrap: [provideRouter(routes, withComponentInputBinding()), startAt('/hives/h7')],
  });
  expect(page).toShow(text(/Hive h7/));
  await page.click(role('link', 'Back'));
  expect(page.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/']);
});
// end

// recipe: an NgRx store
import { createAction, createReducer, on, props, provideStore, Store } from '@ngrx/store';

const open = createAction('open', props<{ hiveId: string }>());
const opened = createReducer<string[]>(
  ['h1'],
  on(open, (before, { hiveId }) => [...before, hiveId]),
);
@Component({
  selector: 'open-hives',
  template: `<button (click)="store.dispatch(open({ hiveId: 'h3' }))">{{ opened().length }} open</button>`,
})
class OpenHives {
  protected readonly open = open;
  protected readonly store = inject<Store<{ opened: string[] }>>(Store);
  protected readonly opened = this.store.selectSignal((state) => state.opened);
}

test('a component works on a real store that begins where the test says', async () => {
  const hives = await isolate(OpenHives, { wrap: [provideStore({ opened })] });
  await hives.click(role('button', '1 open'));
  expect(hives).toShow(role('button', '2 open'));
});
// end

// recipe: Angular Material
import { FormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInput, MatInputModule } from '@angular/material/input';

@Component({
  selector: 'varroa-form',
  imports: [FormsModule, MatButtonModule, MatFormFieldModule, MatInputModule],
  template: `
    <mat-form-field>
      <mat-label>Varroa per 100 bees</mat-label>
      <input matInput name="varroa" [(ngModel)]="varroa" />
    </mat-form-field>
    <button matButton (click)="logged = varroa">Log</button>
    <p>{{ logged }}</p>
  `,
})
class VarroaForm {
  protected varroa = '';
  protected logged = '';
}

test('the components of the library work for real', async () => {
  const form = await isolate(VarroaForm);
  await form.type(label('Varroa per 100 bees'), '4');
  await form.click(role('button', 'Log'));
  expect(form).toShow(text('4'));
});

test('or are stubbed like any other', async () => {
  const form = await isolate(VarroaForm, { stub: [MatInput, 'MatFormField'] });
  expect(form).toShow(role('button', 'Log'));
});
// end
