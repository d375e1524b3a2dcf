import type { Listener } from './stream';

/* eslint-disable @typescript-eslint/no-explicit-any -- operators of whatever library */

/** What an operator of an Observable library asks of its source. */
interface Source {
  subscribe(listener: any): { unsubscribe(): void };
}

interface Operator {
  call(listener: object, source: Source): unknown;
}

/** The members by which Observable libraries apply their operators. */
export function asObservable(sourceOf: () => Source) {
  return {
    pipe: (...operators: ((source: any) => any)[]): any =>
      operators.reduce<any>((source, operator) => operator(source), sourceOf()),
    lift: (operator: Operator) => lifted(sourceOf(), operator),
  };
}

/** A source with an operator applied, that further operators can be applied to. */
function lifted(source: Source, operator: Operator): Source {
  const made: Source = {
    subscribe(given?: any, error?: any, complete?: any) {
      const listener = typeof given === 'object' && given !== null ? given : { next: given, error, complete };
      const ends = new Set<any>();
      const end = () => {
        destination.closed = true;
        for (const one of [...ends]) {
          ends.delete(one);
          if (typeof one === 'function') one();
          else one?.unsubscribe?.();
        }
      };
      const destination = {
        closed: false,
        next: (value: unknown) => listener.next?.(value),
        error: (reason: unknown) => {
          listener.error?.(reason);
          end();
        },
        complete: () => {
          listener.complete?.();
          end();
        },
        add: (one: unknown) => void ends.add(one),
        remove: (one: unknown) => void ends.delete(one),
        unsubscribe: end,
      };
      destination.add(operator.call(destination, source));
      if (typeof listener.add === 'function') listener.add(end);
      return destination;
    },
    ...asObservable(() => made),
  };
  const observable = (Symbol as { observable?: symbol }).observable ?? '@@observable';
  return Object.defineProperty(made, observable, { value: () => made });
}

type Handler = EventListenerOrEventListenerObject | null;

/** The members of an EventTarget. */
export function asTarget<T>(subscribe: (listener: Listener<T>) => { unsubscribe(): void }) {
  const listening = new Map<string, Map<Handler, { unsubscribe(): void }>>();
  return {
    addEventListener(type: string, handler: Handler): void {
      const known = listening.get(type) ?? new Map<Handler, { unsubscribe(): void }>();
      listening.set(type, known);
      if (!handler || known.has(handler)) return;
      const hear = (event: object) =>
        typeof handler === 'function' ? handler(event as Event) : handler.handleEvent(event as Event);
      const failed = (error: unknown) => (type === 'error' ? hear({ type, error }) : undefined);
      const next = (data: T) => (type === 'error' ? undefined : hear({ type, data }));
      known.set(handler, subscribe({ next, error: failed }));
    },
    removeEventListener(type: string, handler: Handler): void {
      listening.get(type)?.get(handler)?.unsubscribe();
      listening.get(type)?.delete(handler);
    },
  };
}
