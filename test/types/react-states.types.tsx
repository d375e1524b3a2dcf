/* Compiled, never run: what declared states must take and must refuse. */
import { cases, everyArrival, role } from 'simulacra';
import { isolate, isolateWith, states } from 'simulacra/react';
import { createContext, type ReactNode } from 'react';
import type { Hive } from '../../examples/shared/hive';

interface CardProps {
  hive: Hive;
  onOpen?: (id: string, at: number) => void;
}
declare function Card(props: CardProps): ReactNode;
declare const Units: React.Context<'kg' | 'lb'>;
const Session = createContext<{ keeper: string; log(id: string): Promise<number> } | undefined>(undefined);
declare const hive: Hive;

type Equal<A, B> = (<T>() => T extends A ? 1 : 2) extends <T>() => T extends B ? 1 : 2 ? true : false;
const same = <T extends true>(_?: T) => undefined;

export async function declaredStates() {
  const cards = states(
    Card,
    { props: { hive } },
    {
      plain: { shows: [role('heading')] },
      opened: {
        from: 'plain',
        props: { onOpen: (id, at) => void [id.length, at.toFixed()] },
        after: (card) => card.update({ hive }),
        looksLike: ['plain'],
        shows: [role('button')],
      },
      ...cases('{name}', [hive], (one) => ({ props: { hive: one }, shows: [role('article', one.name)] })),
    },
  );
  const card = await isolate(cards.plain);
  same<Equal<ReturnType<typeof card.part<typeof Card>>['props'], CardProps[]>>();
  await card.update({ hive });
  await isolate(cards.opened, { network: { 'GET /a': 1 } });
  await isolateWith({ depth: 1 })(cards.plain);
  states(Card, {}, { plain: { props: { hive }, shows: [] }, next: { from: 'plain', shows: [] } });
  states(
    () => import('../../examples/react-apiary/src/HiveBoard'),
    { props: { yard: 'north' } },
    { one: { shows: [] } },
  );
  // @ts-expect-error a required prop is missing in all states
  states(Card, {}, { plain: { shows: [] } });
  // @ts-expect-error a prop of another type
  states(Card, { props: { hive: 'h1' } }, { plain: { shows: [] } });
  // @ts-expect-error a prop of another type in a state
  states(Card, { props: { hive } }, { plain: { props: { onOpen: 7 }, shows: [] } });
  // @ts-expect-error a key with a letter off
  states(Card, { props: { hive } }, { plain: { show: [] } });
  // @ts-expect-error no locator
  states(Card, { props: { hive } }, { plain: { shows: ['heading'] } });
  // @ts-expect-error builds on a state that is not there
  states(Card, { props: { hive } }, { plain: { shows: [] }, next: { from: 'plian', shows: [] } });
  states(
    Card,
    { props: { hive }, provide: [[Units, 'kg']] },
    {
      plain: {
        provide: [
          [Units, 'lb'],
          [Session, { keeper: 'Ada', log: () => Promise.resolve(1) }],
        ],
        after: (card) => card.update({ hive }),
        shows: [],
      },
      next: { from: 'plain', provide: [[Session, undefined]], shows: [] },
    },
  );
  // @ts-expect-error all states provide a value of another type
  states(Card, { props: { hive }, provide: [[Units, 'stone']] }, { plain: { shows: [] } });
  // @ts-expect-error a state provides a value of another type
  states(Card, { props: { hive } }, { plain: { provide: [[Units, 'stone']], shows: [] } });
  states(
    Card,
    { props: { hive } },
    {
      plain: {
        provide: [
          [Units, 'lb'],
          // @ts-expect-error a value of another type
          [Session, 7],
        ],
        shows: [],
      },
    },
  );
  const one = states(Card, { props: { hive } }, { plain: { shows: [] } });
  // @ts-expect-error a call provides a value of another type for a state
  await isolate(one.plain, { provide: [[Units, 'stone']] });
  // @ts-expect-error a state that was not declared
  await isolate(one.plian);
  const { tried } = await everyArrival(async () => void (await isolate(cards.plain)), { most: 3 });
  same<Equal<typeof tried, number>>();
  void tried;
}
