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
 * Writes what is logged into the chronicle of whoever logs, and passes it on. Installed permanently: a
 * test may write over a method and put it back whenever it likes, and what it has put there is called.
 * React takes the methods out for a moment and puts values back in their place, so each subject looks
 * whether they are still there.
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
    // Printed at once: what was logged may be changed later.
    ownerOfCall(() => true)?.chronicle.add('logged', `console.${level}`, {
      detail: args.map((arg) => (typeof arg === 'string' ? arg : print(arg))).join(' '),
    });
    one.pass.apply(console, args);
  };
  const one: Watched = {
    level,
    heard,
    pass: original,
    property: {
      configurable: true,
      enumerable: true,
      // While no subject is up there is nothing to hear.
      get: () => (shared.environments.size > 0 ? heard : one.pass),
      // Who puts back what they found may have found this.
      set: (next: Log) => {
        one.pass = next === heard ? original : next;
      },
    },
  };
  return one;
}
