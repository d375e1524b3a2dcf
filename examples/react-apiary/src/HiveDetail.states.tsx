import { fail, hold, part, role, swap } from 'simulacra';
import { states } from 'simulacra/react';
import type { ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { hives } from '../../shared/hive';
import { InspectionForm } from './InspectionForm';

const AtHive = ({ children }: { children?: ReactNode }) => (
  <MemoryRouter initialEntries={['/hives/h1']}>
    <Routes>
      <Route path="/hives/:hiveId" element={children} />
    </Routes>
  </MemoryRouter>
);

export default states(
  () => import('./HiveDetail'),
  {
    swap: [swap(() => import('./ScaleFeed'), { ScaleFeed: () => <p>The scale</p> })],
    stub: [InspectionForm],
    wrap: [AtHive],
  },
  {
    loading: { network: { 'GET /api/hives/h1': hold() }, shows: [role('status', 'Looking for the hive')] },
    'not there': {
      network: { 'GET /api/hives/h1': fail(404) },
      shows: [role('alert', 'There is no such hive')],
    },
    loaded: {
      network: { 'GET /api/hives/h1': hives[0] },
      shows: [role('heading', 'Anemone'), part(InspectionForm)],
    },
  },
);
