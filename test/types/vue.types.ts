/* Compiled, never run: what the public interface must take and must refuse. */
import { role, spy, standIn, swap } from 'simulacra';
import { isolate, isolateWith, states, stub } from 'simulacra/vue';
import { defineComponent, ref, type InjectionKey, type PropType } from 'vue';
import HiveCard from '../../examples/vue-apiary/src/HiveCard.vue';
import { SessionKey, type Session } from '../../examples/vue-apiary/src/session';
import YardGate from '../../examples/vue-apiary/src/YardGate.vue';
import type { Hive } from '../../examples/shared/hive';
import Ledger from '../conformance/Ledger.vue';

declare const hive: Hive;
declare const Units: InjectionKey<'kg' | 'lb'>;
const Classic = defineComponent({
  props: { hive: { type: Object as PropType<Hive>, required: true }, marked: Boolean },
  emits: { open: (_id: string) => true },
});

type Equal<A, B> = (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : false;
const same = <T extends true>(_?: T) => undefined;

export async function props() {
  const card = await isolate(HiveCard, { props: { hive, onOpen: spy<(id: string) => void>() } });
  same<Equal<(typeof card.outputs.open)[number], [hiveId: string]>>();
  await card.update({ hive });
  await isolate(Classic, { props: { hive, marked: true } });
  await isolate(YardGate, { slots: { default: 'The yard' } });
  const ledger = await isolate(Ledger, { props: { note: ref('calm'), kilograms: 3 } });
  void ledger;
  same<Equal<(typeof ledger.outputs.weighed)[number], [kilograms: number, at: string]>>();
  const page = await isolate(YardGate);
  const first: Hive = page.part(HiveCard).props[0]!.hive;
  await page.part(HiveCard).at(0).tell('open', first.id);
  // @ts-expect-error a prop of another type
  await isolate(HiveCard, { props: { hive: 'h1' } });
  // @ts-expect-error a required prop is missing
  await isolate(HiveCard, { props: {} });
  // @ts-expect-error the props are missing
  await isolate(HiveCard);
  // @ts-expect-error an unknown option
  await isolate(YardGate, { stubs: [HiveCard] });
  // @ts-expect-error a ref of another type
  await isolate(Ledger, { props: { note: ref(3) } });
  // @ts-expect-error an argument of another type
  await page.part(HiveCard).at(0).tell('open', 7);
  // @ts-expect-error an event that is not there
  await page.part(HiveCard).at(0).tell('opened', 'h1');
  // @ts-expect-error an output that is not there
  void card.outputs.opened;
}

export async function surroundings() {
  const session = standIn<Session>(['signIn', 'signOut'], { keeper: ref(null) });
  const gate = await isolate(YardGate, {
    provide: [
      [SessionKey, session],
      [Units, 'kg'],
      ['$format', (n: number) => `${n}`],
    ],
    wrap: [{ install() {} }, [YardGate, {}]],
    stub: [HiveCard, 'v-focus', stub(HiveCard, ({ hive: given }) => given.name)],
  });
  gate.given(SessionKey).signIn.calls satisfies [keeper: string][];
  await isolateWith({ provide: [[Units, 'lb']] })(YardGate);
  await isolateWith({ props: { hive } })(HiveCard);
  // @ts-expect-error a prop that the defaults do not have
  await isolateWith({ props: { yard: 'north' } })(HiveCard);
  // @ts-expect-error a value of another type
  await isolate(YardGate, { provide: [[Units, 'stone']] });
  // @ts-expect-error a key without its value
  await isolate(YardGate, { provide: [SessionKey] });
}

export async function swaps() {
  const feed = () => import('../conformance/ScaleFeed.vue');
  const scale = swap(() => import('../conformance/scale'), { readScale: { kilograms: 3 } });
  const subject = await isolate(feed, { props: { hiveId: 'h1' }, swap: [scale] });
  subject.given(scale).readScale.calls satisfies [hiveId: string][];
  // @ts-expect-error a prop the loaded component does not have
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
        props: { onOpen: (id) => void id.length },
        provide: [[Units, 'kg']],
        after: (card) => card.part(HiveCard).at(0).tell('open', 'h1'),
        shows: [role('button')],
      },
    },
  );
  const card = await isolate(cards.opened);
  same<Equal<typeof card.outputs.open, [hiveId: string][]>>();
  void card;
  await isolateWith({ depth: 1 })(cards.plain, { network: { 'GET /a': 1 } });
  states(YardGate, {}, { plain: { slots: { default: 'The yard' }, shows: [] } });
  // @ts-expect-error a required prop is missing in all states
  states(HiveCard, {}, { plain: { shows: [] } });
  // @ts-expect-error a prop of another type
  states(HiveCard, { props: { hive: 'h1' } }, { plain: { shows: [] } });
  // @ts-expect-error a key with a letter off
  states(HiveCard, { props: { hive } }, { plain: { show: [] } });
  // @ts-expect-error all states provide a value of another type
  states(HiveCard, { props: { hive }, provide: [[Units, 'stone']] }, { plain: { shows: [] } });
  // @ts-expect-error a state provides a value of another type
  states(HiveCard, { props: { hive } }, { plain: { provide: [[Units, 'stone']], shows: [] } });
  // @ts-expect-error a call provides a value of another type for a state
  await isolate(cards.plain, { provide: [[Units, 'stone']] });
  // @ts-expect-error a state that was not declared
  await isolate(cards.opend);
}
void declaredStates;
