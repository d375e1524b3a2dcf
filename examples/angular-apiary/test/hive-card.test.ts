import 'simulacra/jest';
import { role, spy } from 'simulacra';
import { isolate } from 'simulacra/angular';
import { hives, type Hive } from '../../shared/hive';
import { HiveCard } from '../src/hive-card';

const [anemone, , clover] = hives as [Hive, Hive, Hive];

test('a card tells its parent which hive is opened', async () => {
  const opened = spy<(hiveId: string) => void>();
  const card = await isolate(HiveCard, { props: { hive: anemone, opened } });
  await card.click(role('button', 'Open Anemone'));
  expect(opened.calls).toEqual([['h1']]);
  expect(card.chronicle.of('called').map(({ what, detail }) => what + detail)).toEqual(['opened("h1")']);
});

test('a hive with nothing to do has no list of tasks', async () => {
  const card = await isolate(HiveCard, { props: { hive: anemone } });
  expect(card).toShow(role('list', 'Tasks for Anemone'));
  await card.update({ hive: clover });
  expect(card).not.toShow(role('list'));
});
