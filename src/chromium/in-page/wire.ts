/* How the page reaches who drives it. */

declare const simulacraTell: (message: string) => void;

let count = 0;
const waiting = new Map<number, (answer: unknown) => void>();

/** Tells something that nobody answers. */
export const tell = (kind: string, about: object): void => simulacraTell(JSON.stringify({ kind, ...about }));

/** Asks for something to be done, and waits until it is. */
export function ask<T>(kind: string, about: object): Promise<T> {
  const id = ++count;
  return new Promise((resolve, reject) => {
    waiting.set(id, (answer) => {
      const { problem } = (answer ?? {}) as { problem?: string };
      if (problem === undefined) resolve(answer as T);
      else reject(new Error(problem));
    });
    simulacraTell(JSON.stringify({ kind, id, ...about }));
  });
}

Object.assign(globalThis, {
  simulacraAnswer: (id: number, answer: unknown) => {
    waiting.get(id)?.(answer);
    waiting.delete(id);
  },
});
