import { fail, later, type Connection, type Routes } from 'simulacra';
import { alerts } from './alerts';
import { plants } from './forage';
import { allHives } from './hive';

/**
 * What the backend of the apiary answers, for the pages in a browser. The east yard is out of order for a second
 * when it is first asked for, the south yard is still empty.
 */
export default function makeRoutes(): Routes {
  let isDownUntil = Infinity;
  return {
    'GET /api/hives': (request: Request) => {
      const { searchParams } = new URL(request.url);
      const wanted = (searchParams.get('q') ?? '').toLowerCase();
      const yard = searchParams.get('yard');
      return later(
        450,
        allHives.filter((hive) => hive.yard === yard && hive.name.toLowerCase().includes(wanted)),
      );
    },
    'GET /api/hives?yard=east': () => {
      isDownUntil = Math.min(isDownUntil, Date.now() + 1000);
      return later(
        300,
        Date.now() < isDownUntil ? fail(503) : allHives.filter(({ yard }) => yard === 'east'),
      );
    },
    'GET /api/hives/:hiveId': (_: Request, { hiveId }) =>
      later(200, allHives.find(({ id }) => id === hiveId) ?? fail(404)),
    'POST /api/hives/:hiveId/inspections': async (request: Request) => {
      const { varroa } = (await request.json()) as { varroa: number };
      return later(
        600,
        varroa < 50
          ? new Response(null, { status: 201 })
          : fail(422, { detail: 'No hive lives with that many mites' }),
      );
    },
    'PUT /api/photos/:photoId': later(400, new Response(null, { status: 200 })),
    'GET /live/alerts': tellAlerts,
    'WS /live/scales': weigh,
    'QUERY InFlower': ({ within }: { within: number }) =>
      later(350, { plants: plants.filter(({ distance }) => distance <= within) }),
  };
}

/** The alerts that somebody does not know yet, as events; the connection stays open. */
function tellAlerts(request: Request): Response {
  const known = alerts.findIndex(({ id }) => id === request.headers.get('last-event-id'));
  const events = alerts
    .slice(known + 1)
    .map(({ id, kind, text }) => `event: ${kind}\nid: ${id}\ndata: ${text}\n\n`)
    .join('');
  const body = new ReadableStream({
    start: (controller) => controller.enqueue(new TextEncoder().encode(`: alerts\n\n${events}`)),
  });
  return new Response(body, { headers: { 'content-type': 'text/event-stream' } });
}

/** What the scales of the yard tell, a reading of each hive every second. */
function weigh(connection: Connection): void {
  let turn = 0;
  const timer = setInterval(() => {
    if (!connection.isOpen) return clearInterval(timer);
    for (const { id, weight } of allHives)
      connection.send({ hiveId: id, kilograms: weight + (turn % 5) / 10 });
    turn++;
  }, 1000);
}
