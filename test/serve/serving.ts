import { serve, type Served, type ServeOptions, type Told } from 'simulacra/serve';

const running = new Set<Served>();
afterEach(async () => {
  for (const served of running) await served.close();
  running.clear();
});

export async function start(options: ServeOptions) {
  const told: Told[] = [];
  const served = await serve({ onRequest: (one) => void told.push(one), ...options });
  running.add(served);
  const ask = async (route: string, body?: unknown, headers: Record<string, string> = {}) => {
    const [method = 'GET', path = '/'] = route.split(' ');
    const response = await fetch(served.url + path, {
      ...{
        method,
        headers: { ...(body !== undefined && { 'content-type': 'application/json' }), ...headers },
      },
      ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const text = await response.text();
    const isJson = /json/.test(response.headers.get('content-type') ?? '');
    return { status: response.status, headers: response.headers, body: isJson ? JSON.parse(text) : text };
  };
  return { served, told, ask };
}

/** Waits until a check holds. @param most milliseconds */
export async function eventually(check: () => Promise<boolean>, most = 2000): Promise<void> {
  for (const start = performance.now(); performance.now() - start < most;) {
    if (await check()) return;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  throw new Error('it never came to that');
}
