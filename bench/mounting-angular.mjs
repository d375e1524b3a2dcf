import './page.mjs';
import { isolate } from 'simulacra/angular';
import {
  createComponent,
  createEnvironmentInjector,
  Component,
  provideZonelessChangeDetection,
} from '@angular/core';
import { createApplication } from '@angular/platform-browser';
import { compare, compareBatches, isolatedBy, turn } from './measure.mjs';

const define = (type, metadata) => {
  Component(metadata)(type);
  return type;
};
const Label = define(class Label {}, {
  selector: 'yard-label',
  inputs: ['name'],
  template: '<p>{{ name }}</p>',
});

// Heavy as real cards are: some forty elements, each with attributes.
const Card = define(
  class Card {
    rows = Array.from({ length: 20 }, (_, n) => n);
  },
  {
    selector: 'yard-card',
    inputs: ['hive'],
    template:
      '<article class="card">@for (n of rows; track n) {<div [title]="n"><span>{{ hive }} {{ n }}</span></div>}</article>',
  },
);
const Yard = define(
  class Yard {
    hives = Array.from({ length: 100 }, (_, n) => `h${n}`);
  },
  {
    selector: 'yard-yard',
    imports: [Card],
    template: '<section>@for (hive of hives; track hive) {<yard-card [hive]="hive" />}</section>',
  },
);

// As a component library has it: a component for each row, cell and button.
const Cell = define(class Cell {}, { selector: 'td[cell]', template: '<ng-content />' });
const Open = define(
  class Open {
    open() {}
  },
  {
    selector: 'yard-open',
    inputs: ['hive'],
    template: '<button type="button" (click)="open()">Open {{ hive }}</button>',
  },
);
const Row = define(class Row {}, {
  selector: 'tr[row]',
  inputs: ['hive'],
  imports: [Cell, Open],
  template:
    '<td cell>{{ hive }}</td><td cell>31.2 kg</td><td cell>calm</td><td cell><yard-open [hive]="hive" /></td>',
});
const Table = define(
  class Table {
    hives = Array.from({ length: 200 }, (_, n) => `h${n}`);
  },
  {
    selector: 'yard-table',
    imports: [Row],
    template: '<table><tbody>@for (hive of hives; track hive) {<tr row [hive]="hive"></tr>}</tbody></table>',
  },
);

const makeApplication = () => createApplication({ providers: [provideZonelessChangeDetection()] });

/** A component with an injector of its own in a given application, and nothing else around it. */
async function bare(component, props, application) {
  const container = document.body.appendChild(document.createElement('div'));
  const environmentInjector = createEnvironmentInjector([], application.injector);
  const ref = createComponent(component, { environmentInjector });
  for (const [name, value] of Object.entries(props)) ref.setInput(name, value);
  container.append(ref.location.nativeElement);
  application.attachView(ref.hostView);
  application.tick();
  await turn();
  ref.destroy();
  environmentInjector.destroy();
  container.remove();
}

/** The same with an application for it alone, as a page has it. */
async function whole(component, props) {
  const application = await makeApplication();
  await bare(component, props, application);
  application.destroy();
}

const isolated = isolatedBy(isolate);

export async function mountingAngular() {
  const application = await makeApplication();
  const props = { name: 'Anemone' };
  const ours = isolated(Label, { props });
  const alone = await compare({ ours, floor: () => whole(Label, props), rounds: 600 });
  const trivial = await compare({ ours, floor: () => bare(Label, props, application), rounds: 600 });
  const batches = await compareBatches({ ours, floor: () => bare(Label, props, application) });
  const full = await compare({
    ours: isolated(Yard, {}),
    floor: () => bare(Yard, {}, application),
    rounds: 60,
  });
  const table = await compare({
    ours: isolated(Table, {}),
    floor: () => bare(Table, {}, application),
    rounds: 60,
  });
  const stubbed = await compare({
    ours: isolated(Yard, { stub: [Card] }),
    floor: () => bare(Yard, {}, application),
    rounds: 60,
  });
  const more = ((trivial.ours - trivial.floor) * 1000).toFixed(0);
  const why = `the ${more} µs more are an injector that counts as an application's root, with all that has to be in it, the watch over the page, the environment of the subject and the record of what happened. It is paid once for a subject, whatever its size: see the row of 100 children.`;
  return [
    {
      name: 'Angular: isolate a trivial component and take it down',
      against: 'bare, an application each',
      goal: 1.3,
      ...alone,
    },
    {
      name: 'Angular: the same',
      against: 'bare, an injector each in a shared application',
      goal: 1.9,
      ...trivial,
      why: trivial.ratio > 1.9 ? why : undefined,
    },
    {
      name: 'Angular: the same in batches of 50, collection counted',
      against: 'the same, bare',
      goal: 3,
      ...batches,
      why:
        batches.ratio > 3
          ? 'it is the row above with what is left to be collected: the records, the closures and the promises of a subject.'
          : undefined,
    },
    {
      name: 'Angular: isolate 100 heavy children, in full',
      against: 'bare, shared application',
      goal: 1.3,
      ...full,
    },
    {
      name: 'Angular: isolate a table of 200 rows',
      against: 'bare, shared application',
      goal: 1.1,
      ...table,
    },
    { name: 'Angular: isolate 100 heavy children, stubbed', against: 'bare in full', goal: 1, ...stubbed },
  ];
}
