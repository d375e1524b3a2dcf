import 'simulacra/jest';
import { hold, role, swap } from 'simulacra';
import { isolateWith } from 'simulacra/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { hives, type Hive } from '../../shared/hive';
import { InspectionForm } from '../src/InspectionForm';

const at =
  (address: string) =>
  ({ children }: { children?: ReactNode }) => (
    <MemoryRouter initialEntries={[address]}>
      <Routes>
        <Route path="/hives/:hiveId" element={children} />
        <Route path="/" element={<p>The board</p>} />
      </Routes>
    </MemoryRouter>
  );
const isolate = isolateWith({
  swap: [swap(() => import('../src/ScaleFeed'), { ScaleFeed: () => <p>The scale</p> })],
  stub: [InspectionForm],
  wrap: [at('/hives/h1')],
});
const hiveDetail = () => import('../src/HiveDetail');

test('the hive of the address is looked for, and shown with its parts', async () => {
  const answer = hold<Hive>();
  const detail = await isolate(hiveDetail, { network: { 'GET /api/hives/:hiveId': answer } });
  expect(detail).toShow(role('status', 'Looking for the hive'));
  await answer.release(hives[0]!);
  expect(detail).toShow(role('heading', 'Anemone'));
  expect(detail.part(InspectionForm).props).toEqual([{ hiveId: 'h1' }]);
  expect(detail.requests.map(({ url }) => new URL(url).pathname)).toEqual(['/api/hives/h1']);
});

test('the way back leads to the board', async () => {
  const detail = await isolate(hiveDetail, { network: { 'GET /api/hives/:hiveId': hives[0] } });
  await detail.click(role('link', 'Back to the board'));
  expect(detail.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/']);
});
