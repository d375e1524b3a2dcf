import { format } from './node/util';
import type { Said } from '../told';

const kinds = ['log', 'info', 'warn', 'error', 'debug', 'dir', 'table', 'trace', 'assert'] as const;

/** Notes what is printed on the page, for the runner to print it. @returns what was, so far */
export function listenToConsole(): readonly Said[] {
  const said: Said[] = [];
  for (const kind of kinds) {
    console[kind] = (...given: unknown[]) => {
      if (kind === 'assert' && given.shift()) return;
      const origin = new Error().stack?.split('\n').slice(2).join('\n') ?? '';
      const isOne = kind === 'dir' || kind === 'table';
      said.push({
        type: isOne ? 'log' : kind === 'trace' ? 'log' : kind,
        message: format(...(isOne ? given.slice(0, 1) : given)),
        origin,
      });
    };
  }
  return said;
}
