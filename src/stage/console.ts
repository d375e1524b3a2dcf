import type { ChronicleLog } from '../core/chronicle';
import { print } from '../core/print';

const levels = ['error', 'warn', 'info', 'log', 'debug'] as const;

/** Writes what is logged into the chronicle, and passes it on. @returns how to stop */
export function listenToConsole(chronicle: ChronicleLog): () => void {
  const restore = levels.map((level) => {
    const before = Object.getOwnPropertyDescriptor(console, level);
    const pass = console[level];
    const heard = (...args: unknown[]) => {
      chronicle.add('logged', `console.${level}`, {
        detail: () => args.map((arg) => (typeof arg === 'string' ? arg : print(arg))).join(' '),
      });
      pass.apply(console, args);
    };
    console[level] = heard;
    return () => {
      if (console[level] !== heard) return;
      if (before) Object.defineProperty(console, level, before);
      else Reflect.deleteProperty(console, level);
    };
  });
  return () => restore.forEach((undo) => undo());
}

/** Keeps off the console what a framework says of itself, and a test need not hear. @returns how to stop */
export function silence(level: (typeof levels)[number], message: RegExp): () => void {
  const pass = console[level];
  const quiet = (...args: unknown[]) => {
    if (!message.test(String(args[0]))) pass.apply(console, args);
  };
  console[level] = quiet;
  return () => {
    if (console[level] === quiet) console[level] = pass;
  };
}
