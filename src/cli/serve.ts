import { once } from 'node:events';
import { existsSync, watch, type FSWatcher } from 'node:fs';
import { dirname, join } from 'node:path';
import { count } from '../core/print';
import { refuse } from '../serve/errors';
import { loadConfiguration, makeSource } from '../serve/load';
import { serve, type Served } from '../serve/server';
import { controlPath } from '../serve/switchboard/path';
import type { Told } from '../serve/backend';
import { coloursOf, type Output } from './output';

/** What the call says. */
export interface ServeCall {
  readonly files: readonly string[];
  readonly port: number | undefined;
  readonly host: string | undefined;
  readonly states: readonly string[];
  readonly isQuiet: boolean;
}

/** Serves answers until it is stopped. @returns the exit code */
export async function runServe(output: Output, call: ServeCall, stop: AbortSignal): Promise<number> {
  const root = process.cwd();
  const { from, port = 4100, host, states } = await settingsOf(call, root);
  const source = makeSource(from, root);
  const tell = teller(output);
  const served = await serve({
    ...{ network: source.make, port, ...(host && { host }), states },
    ...(!call.isQuiet && { onRequest: tell.request }),
  });
  tell.start(served, source.named ?? ['simulacra.config'], host);
  const unwatch = watchFiles(source.read, async () => {
    try {
      await served.reset();
      output.write('The answers were read again.\n');
    } catch (error) {
      output.complain(`${(error as Error).message}\nThe answers stay as they were.\n`);
    }
  });
  if (!stop.aborted) await once(stop, 'abort');
  unwatch();
  await served.close();
  output.write('Stopped.\n');
  return 0;
}

async function settingsOf(call: ServeCall, root: string) {
  const configured = call.files.length > 0 ? undefined : (await loadConfiguration(root))?.serve;
  if (call.files.length === 0 && !configured)
    refuse('SIM-SERVE-FILE', {
      file: 'Nothing',
      why: 'the call names no file, and there is no simulacra.config.ts that says "serve" here',
      nearest: ['openapi.yaml', 'openapi.json', 'schema.graphql']
        .filter((name) => existsSync(name))
        .map((name) => `simulacra serve ${name}`)[0],
    });
  const asked = call.states.map((given) => {
    // A route may have a "=" of its own.
    const at = given.lastIndexOf('=');
    return at < 0 ? ['*', given] : [given.slice(0, at), given.slice(at + 1)];
  });
  const own = Object.fromEntries(asked) as Record<string, string>;
  return {
    from: configured?.from ?? call.files,
    port: call.port ?? configured?.port,
    host: call.host ?? configured?.host,
    states: { ...configured?.states, ...own },
  };
}

function teller(output: Output) {
  const { bold, dim, green, red, yellow } = coloursOf(output);
  return {
    start({ url, routes }: Served, from: readonly string[], host: string | undefined) {
      const width = Math.min(60, Math.max(...routes.map(({ route }) => route.length)) + 4);
      const lines = routes.map(({ route, state }) => {
        const [method = '', ...path] = route.split(' ');
        const words = `  ${method.padEnd(7)} ${path.join(' ')}`.padEnd(width + 4);
        return `${words}  ${state === 'data' ? dim(state) : yellow(state)}\n`;
      });
      output.write(`${bold(url)} answers ${count(routes.length, 'route')} of ${from.join(', ')}\n\n`);
      const most = 40;
      output.write(lines.slice(0, most).join(''));
      if (lines.length > most) output.write(dim(`  … ${lines.length - most} more on the switchboard\n`));
      output.write(`\nSwitch their states on ${url}${controlPath} · Ctrl+C stops\n`);
      if (host && !/^(localhost|127\..*|::1)$/.test(host))
        output.write(yellow(`Whoever reaches this machine at ${host} can ask and switch.\n`));
      output.write('\n');
    },
    request: ({ asked, status, milliseconds, problem }: Told) => {
      const paint = status === 0 ? dim : status >= 500 ? red : status >= 400 ? yellow : green;
      const time = dim(`${Math.round(milliseconds)} ms`);
      output.write(`${paint(status === 0 ? 'left' : String(status).padEnd(4))} ${asked}  ${time}\n`);
      if (problem) output.write(`${problem.trimEnd().replace(/^/gm, '     ')}\n`);
    },
  };
}

/**
 * Calls back when one of some files changed, once for a burst. Their folders are watched, so that a file that
 * an editor puts in the place of another is seen too; files that are read later are watched from then on.
 *
 * @returns how to end that
 */
function watchFiles(files: ReadonlySet<string>, changed: () => Promise<void>): () => void {
  let timer: NodeJS.Timeout | undefined;
  const watchers = new Map<string, FSWatcher>();
  const watchFolders = () => {
    for (const folder of new Set([...files].map((file) => dirname(file)))) {
      if (watchers.has(folder)) continue;
      const watcher = watch(folder, { persistent: false }, (_, name) => {
        if (name !== null && !files.has(join(folder, name))) return;
        clearTimeout(timer);
        timer = setTimeout(() => void changed().then(watchFolders), 100);
      });
      watchers.set(
        folder,
        watcher.on('error', () => undefined),
      );
    }
  };
  watchFolders();
  return () => {
    clearTimeout(timer);
    for (const watcher of watchers.values()) watcher.close();
  };
}
