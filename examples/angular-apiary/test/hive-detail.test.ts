import 'simulacra/jest';
import { Component, signal } from '@angular/core';
import { ActivatedRoute, convertToParamMap, provideRouter, RouterOutlet } from '@angular/router';
import { hold, role, spy, standIn, swap } from 'simulacra';
import { isolate, isolateWith, startAt } from 'simulacra/angular';
import { BehaviorSubject } from 'rxjs';
import { hives, type Hive } from '../../shared/hive';
import { InspectionForm } from '../src/inspection-form';
import { routes } from '../src/routes';

const scale = { kilograms: signal(undefined), listenTo: spy() };
const silent = swap(() => import('../src/scale'), { injectScale: scale });
const paramMap = new BehaviorSubject(convertToParamMap({ hiveId: 'h1' }));
const router = [provideRouter(routes), startAt('/hives/h1')];
const isolateAt = isolateWith({
  provide: [[ActivatedRoute, standIn<ActivatedRoute>({ paramMap })]],
  swap: [silent],
  wrap: router,
});
const hiveDetail = () => import('../src/hive-detail');

test('the hive of the address is looked for, and shown with its parts', async () => {
  const answer = hold<Hive>();
  const detail = await isolateAt(hiveDetail, {
    stub: [InspectionForm],
    network: { 'GET /api/hives/:hiveId': answer },
  });
  expect(detail).toShow(role('status', 'Looking for the hive'));
  await answer.release(hives[0]!);
  expect(detail).toShow(role('heading', 'Anemone'));
  expect(detail.part(InspectionForm).props).toEqual([{ hiveId: 'h1' }]);
  expect(detail.requests.map(({ url }) => new URL(url).pathname)).toEqual(['/api/hives/h1']);
});

@Component({ selector: 'yard-page', imports: [RouterOutlet], template: '<router-outlet />' })
class Page {}

test('the way back leads to the board, by the real route', async () => {
  const page = await isolate(Page, {
    wrap: router,
    swap: [silent],
    network: { 'GET /api/hives/:hiveId': hives[0] },
  });
  expect(page).toShow(role('heading', 'Anemone'));
  await page.click(role('link', 'Back to the board'));
  expect(page.chronicle.of('navigated').map(({ what }) => what)).toEqual(['/']);
});
