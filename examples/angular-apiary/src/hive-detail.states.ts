import { fail, hold, part, role, spy, standIn, swap } from 'simulacra';
import { startAt, states } from 'simulacra/angular';
import { signal } from '@angular/core';
import { ActivatedRoute, convertToParamMap, provideRouter } from '@angular/router';
import { BehaviorSubject } from 'rxjs';
import { hives } from '../../shared/hive';
import { InspectionForm } from './inspection-form';
import { routes } from './routes';

const paramMap = new BehaviorSubject(convertToParamMap({ hiveId: 'h1' }));
const silent = swap(() => import('./scale'), {
  injectScale: { kilograms: signal(undefined), listenTo: spy() },
});

export default states(
  () => import('./hive-detail'),
  {
    provide: [[ActivatedRoute, standIn<ActivatedRoute>({ paramMap })]],
    swap: [silent],
    stub: [InspectionForm],
    wrap: [provideRouter(routes), startAt('/hives/h1')],
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
