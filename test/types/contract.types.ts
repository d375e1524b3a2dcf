/* Compiled, never run: answers that have the types of a contract. */
import { fail, hold, inTurn, later, type Routes, type RoutesOf } from 'simulacra';
import type { Answers, Hive } from '../../examples/shared/contract';

declare const hive: Hive;
type Wanted = RoutesOf<Answers>;

const right: Wanted = {
  'GET /api/hives': [hive],
  'GET /api/hives?yard=north': hold(),
  'GET /api/hives?yard=:yard': later(20, [hive]),
  'GET /api/hives/:hiveId': inTurn(fail(503), hive),
  'POST /api/photos': (request: Request) => ({ url: request.url }),
  'POST /api/hives/:hiveId/inspections': new Response(null, { status: 201 }),
  'QUERY InFlower': { plants: [{ name: 'Borage', amount: 'PLENTY', flowers: { until: '2031-08-31' } }] },
};
const alsoRoutes: Routes = right;
void alsoRoutes;

const { name: _, ...nameless } = hive;
// @ts-expect-error a field is missing
export const missing: Wanted = { 'GET /api/hives': [nameless] };
// @ts-expect-error a field was renamed
export const renamed: Wanted = { 'GET /api/hives/:hiveId': { ...nameless, nam: 'Borage' } };
// @ts-expect-error a text for a number
export const text: Wanted = { 'GET /api/hives?q=an': [{ ...hive, weight: '31.2' }] };
// @ts-expect-error no such choice
export const choice: Wanted = { 'GET /api/hives': later(20, [{ ...hive, yard: 'west' }]) };
// @ts-expect-error null where nothing may be missing
export const nothing: Wanted = { 'GET /api/hives': [{ ...hive, queen: null }] };
// @ts-expect-error an object for a list
export const one: Wanted = { 'GET /api/hives': hive };
// @ts-expect-error a route that there is not
export const route: Wanted = { 'GET /api/hivs': [hive] };
// @ts-expect-error a function that answers something else
export const made: Wanted = { 'POST /api/photos': () => ({ uri: '/p1' }) };
// @ts-expect-error a field that the schema does not have
export const field: Wanted = { 'QUERY InFlower': { plants: [{ nam: 'Borage' }] } };
// @ts-expect-error a value that the schema does not have
export const value: Wanted = { 'QUERY InFlower': { plants: [{ amount: 'plenty' }] } };
