import { ownerOfCall } from '../../core/ownership';
import { print } from '../../core/print';
import { shared } from '../../core/shared';

const levels = ['error', 'warn', 'info', 'log', 'debug'] as const;
type Log = (...args: unknown[]) => void;

/**
 * Writes what is logged into the chronicle of whoever logs, and passes it on. Installed permanently: a
 * test may write over a method and put it back whenever it likes, and what it has put there is called.
 */
export function watchConsole(console: Console): void {
  for (const level of levels) {
    const original = console[level] as Log | undefined;
    if (typeof original !== 'function') continue;
    let pass: Log = original;
    const heard: Log = (...args) => {
      const owner = ownerOfCall(() => true);
      const text = String(args[0]);
      const isSilenced = [...shared.environments].some(({ silenced }) =>
        silenced.some((one) => one.level === level && one.pattern.test(text)),
      );
      if (isSilenced) return;
      // Printed at once: what was logged may be changed later.
      owner?.chronicle.add('logged', `console.${level}`, {
        detail: args.map((arg) => (typeof arg === 'string' ? arg : print(arg))).join(' '),
      });
      pass.apply(console, args);
    };
    Object.defineProperty(console, level, {
      configurable: true,
      enumerable: true,
      // While no subject is up there is nothing to hear.
      get: () => (shared.environments.size > 0 ? heard : pass),
      // Who puts back what they found may have found this.
      set: (next: Log) => {
        pass = next === heard ? original : next;
      },
    });
  }
}
