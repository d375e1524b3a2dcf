import { allHives } from './hive';

interface Reply {
  status: number;
  /** Milliseconds until it is sent. */
  after: number;
  body: unknown;
}

const outOfOrder = { since: 0, for: 1000 };

/**
 * The backend of the apiary, simulated: the same for the page in the browser and every framework.
 * The east yard is out of order for a second when it is first asked for, the south yard is still empty.
 */
export function reply(method: string, url: URL, sent?: { varroa?: number }): Reply {
  const problem = (status: number, title: string, detail?: string): Reply => ({
    status,
    after: 300,
    body: { type: 'about:blank', title, status, detail },
  });
  if (method === 'GET' && url.pathname === '/api/hives') {
    const yard = url.searchParams.get('yard') ?? '';
    outOfOrder.since ||= yard === 'east' ? Date.now() : 0;
    if (yard === 'east' && Date.now() - outOfOrder.since < outOfOrder.for)
      return problem(503, 'Service Unavailable');
    const wanted = (url.searchParams.get('q') ?? '').toLowerCase();
    const body = allHives.filter((hive) => hive.yard === yard && hive.name.toLowerCase().includes(wanted));
    return { status: 200, after: 450, body };
  }
  if (method === 'POST' && url.pathname.endsWith('/inspections')) {
    const isLikely = (sent?.varroa ?? 0) < 50;
    return isLikely
      ? { status: 201, after: 600, body: null }
      : problem(422, 'Unprocessable Content', 'No hive lives with that many mites');
  }
  if (method === 'POST' && url.pathname === '/api/photos')
    return { status: 201, after: 200, body: { url: '/api/photos/p1' } };
  if (method === 'PUT' && url.pathname.startsWith('/api/photos/'))
    return { status: 200, after: 400, body: null };
  const [, id] = /^\/api\/hives\/([^/]+)$/.exec(url.pathname) ?? [];
  const hive = allHives.find((one) => one.id === id);
  return hive ? { status: 200, after: 200, body: hive } : problem(404, 'Not Found');
}

/** What the scales of the yard tell, a reading for each hive, `turn` seconds after they were switched on. */
export const readings = (turn: number): { hiveId: string; kilograms: number }[] =>
  allHives.map(({ id, weight }) => ({ hiveId: id, kilograms: weight + (turn % 5) / 10 }));
