import 'simulacra/jest';
import { role, spy } from 'simulacra';
import { isolate } from 'simulacra/vue';
import { hives, type Hive } from '../../shared/hive';
import HiveCard from '../src/HiveCard.vue';

const [anemone, , clover] = hives as [Hive, Hive, Hive];

test('a card tells its parent which hive is opened', async () => {
  const onOpen = spy<(hiveId: string) => void>();
  const card = await isolate(HiveCard, { props: { hive: anemone, onOpen } });
  await card.click(role('button', 'Open Anemone'));
  expect(onOpen.calls).toEqual([['h1']]);
  expect(card.chronicle.of('called').map(({ what, detail }) => what + detail)).toEqual(['onOpen("h1")']);
});

test('a hive with nothing to do has no list of tasks', async () => {
  const card = await isolate(HiveCard, { props: { hive: anemone } });
  expect(card).toShow(role('list', 'Tasks for Anemone'));
  await card.update({ hive: clover });
  expect(card).not.toShow(role('list'));
});
