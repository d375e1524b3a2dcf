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
export function reply(method: string, url: URL): Reply {
  const problem = (status: number, title: string): Reply => ({
    status,
    after: 300,
    body: { type: 'about:blank', title, status },
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
  const [, id] = /^\/api\/hives\/([^/]+)$/.exec(url.pathname) ?? [];
  const hive = allHives.find((one) => one.id === id);
  return hive ? { status: 200, after: 200, body: hive } : problem(404, 'Not Found');
}
