import { formatLog } from '../../core/logs';
import { ownerOfCall } from '../../core/ownership';
import { print } from '../../core/print';
import { once, shared } from '../../core/shared';

const levels = ['error', 'warn', 'info', 'log', 'debug'] as const;
type Log = (...args: unknown[]) => void;

/** One method of the console, as it is installed. */
interface Watched {
  readonly level: string;
  readonly heard: Log;
  /** What is called in the end. */
  pass: Log;
  readonly property: PropertyDescriptor & { get(): Log };
}

const watched = once<Watched[]>('console', () => []);

/**
 * Records logs in the chronicle of the subject that logs, and passes them on. The methods are installed
 * permanently. A test may overwrite and restore them at any time; its own function is then called. React
 * replaces the methods for a moment and restores plain values, so each subject checks that ours are still
 * there.
 */
export function watchConsole(console: Console): void {
  if (watched.length === 0) for (const level of levels) watched.push(watch(console, level));
  for (const one of watched) {
    const { get, value } = Object.getOwnPropertyDescriptor(console, one.level) ?? {};
    if (get === one.property.get) continue;
    if (typeof value === 'function' && value !== one.heard) one.pass = value as Log;
    Object.defineProperty(console, one.level, one.property);
  }
}

function watch(console: Console, level: (typeof levels)[number]): Watched {
  const original = console[level] as Log;
  const heard: Log = (...args) => {
    const text = String(args[0]);
    const isSilenced = [...shared.environments].some(({ silenced }) =>
      silenced.some((quiet) => quiet.level === level && quiet.pattern.test(text)),
    );
    if (isSilenced) return;
    const owner = ownerOfCall(() => true);
    if (owner) {
      // Print now, because logged values may change later.
      const printed = formatLog(args, print);
      const from = owner.running();
      owner.chronicle.add('logged', `console.${level}`, { detail: printed, from });
      if (owner.logs?.hear({ level, text: printed, from })) return;
      if (owner.logs && owner.state !== 'up') owner.onLateLog();
    }
    one.pass.apply(console, args);
  };
  const one: Watched = {
    level,
    heard,
    pass: original,
    property: {
      configurable: true,
      enumerable: true,
      // Without a subject there is nothing to record.
      get: () => (shared.environments.size > 0 ? heard : one.pass),
      // Code that restores a method may restore ours.
      set: (next: Log) => {
        one.pass = next === heard ? original : next;
      },
    },
  };
  return one;
}
