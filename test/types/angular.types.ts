/* Compiled, never run: what the public interface must take and must refuse. */
import {
  booleanAttribute,
  Component,
  EventEmitter,
  InjectionToken,
  input,
  Input,
  model,
  output,
  Output,
  signal,
} from '@angular/core';
import { provideRouter } from '@angular/router';
import { hold, role, spy, standIn, swap } from 'simulacra';
import { isolate, isolateWith, startAt, states, stub } from 'simulacra/angular';
import { HiveCard } from '../../examples/angular-apiary/src/hive-card';
import { Session } from '../../examples/angular-apiary/src/session';
import { YardGate } from '../../examples/angular-apiary/src/yard-gate';
import type { Hive } from '../../examples/shared/hive';

declare const hive: Hive;
const UNITS = new InjectionToken<'kg' | 'lb'>('UNITS');

@Component({ template: '' })
class All {
  @Input() plain = 0;
  readonly marked = input(false, { transform: booleanAttribute });
  readonly note = model('');
  @Output() readonly old = new EventEmitter<string>();
  readonly modern = output<number>();
  private readonly hidden = 3;
  count(): number {
    return this.hidden;
  }
}
class Store {
  private readonly names: string[] = [];
  load(yard: string): Promise<string[]> {
    return Promise.resolve([yard, ...this.names]);
  }
}

type Equal<A, B> = (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : false;
const same = <T extends true>(_?: T) => undefined;

export async function props() {
  const card = await isolate(HiveCard, { props: { hive, opened: spy<(id: string) => void>() } });
  same<Equal<(typeof card.outputs.opened)[number], [string]>>();
  await card.update({ hive });
  const all = await isolate(All, {
    props: { plain: 3, marked: '', note: signal(''), old: (word) => word.trim() },
  });
  void all;
  same<Equal<(typeof all.outputs.modern)[number], [number]>>();
  same<Equal<(typeof all.outputs.noteChange)[number], [string]>>();
  await isolate(All, { props: { note: 'calm', noteChange: (word: string) => word.trim() } });
  const page = await isolate(YardGate);
  const first: Hive = page.part(HiveCard).props[0]!.hive;
  await page.part(HiveCard).at(0).tell('opened', first.id);
  // @ts-expect-error an input of another type
  await isolate(HiveCard, { props: { hive: 'h1' } });
  // @ts-expect-error an input that is not there
  await isolate(HiveCard, { props: { hives: [] } });
  // @ts-expect-error a method is no input
  await isolate(All, { props: { count: 3 } });
  // @ts-expect-error an unknown option
  await isolate(YardGate, { stubs: [HiveCard] });
  // @ts-expect-error a value of another type
  await page.part(HiveCard).at(0).tell('opened', 7);
  // @ts-expect-error an output that is not there
  void card.outputs.open;
}

export async function surroundings() {
  const gate = await isolate(YardGate, {
    provide: [
      [Session, standIn(Session, { keeper: signal<string | null>(null) })],
      [UNITS, 'kg'],
      [Store, standIn(Store, { load: hold<string[]>() })],
    ],
    wrap: [provideRouter([]), startAt('/'), YardGate, [YardGate, {}]],
    stub: [HiveCard, 'WeightPipe', stub(HiveCard, '<p></p>')],
    defer: hold(),
  });
  gate.given(Session).signIn.calls satisfies [keeper: string][];
  gate.given(Store).load.calls satisfies [yard: string][];
  await isolateWith({ provide: [[UNITS, 'lb']] })(YardGate);
  // @ts-expect-error a value of another type
  await isolate(YardGate, { provide: [[UNITS, 'stone']] });
  // @ts-expect-error a token without its value
  await isolate(YardGate, { provide: [Session] });
}

export async function swaps() {
  const feed = () => import('../conformance/scale-angular');
  const scale = swap(() => import('../conformance/scale'), { readScale: { kilograms: 3 } });
  const subject = await isolate(feed, { props: { hiveId: 'h1' }, swap: [scale] });
  subject.given(scale).readScale.calls satisfies [hiveId: string][];
  // @ts-expect-error an input the loaded component does not have
  await isolate(feed, { props: { hive: 'h1' } });
}

async function declaredStates() {
  const cards = states(
    HiveCard,
    { props: { hive } },
    {
      plain: { shows: [role('heading')] },
      opened: {
        from: 'plain',
        props: { opened: (id) => void id.length },
        provide: [[UNITS, 'kg']],
        after: (card) => card.part(HiveCard).at(0).tell('opened', 'h1'),
        shows: [role('button')],
      },
    },
  );
  const card = await isolate(cards.opened);
  same<Equal<typeof card.outputs.opened, [string][]>>();
  void card;
  await isolateWith({ depth: 1 })(cards.plain, { network: { 'GET /a': 1 } });
  // @ts-expect-error an input of another type
  states(HiveCard, { props: { hive: 'h1' } }, { plain: { shows: [] } });
  // @ts-expect-error a key with a letter off
  states(HiveCard, { props: { hive } }, { plain: { show: [] } });
  // @ts-expect-error all states provide a value of another type
  states(HiveCard, { props: { hive }, provide: [[UNITS, 'stone']] }, { plain: { shows: [] } });
  // @ts-expect-error a state provides a value of another type
  states(HiveCard, { props: { hive } }, { plain: { provide: [[UNITS, 'stone']], shows: [] } });
  // @ts-expect-error a call provides a value of another type for a state
  await isolate(cards.plain, { provide: [[UNITS, 'stone']] });
  // @ts-expect-error a state that was not declared
  await isolate(cards.opend);
}
void declaredStates;
