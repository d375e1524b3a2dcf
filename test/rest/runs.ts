import type { Subject } from 'simulacra';
import { role, takeDown } from 'simulacra';

/* eslint-disable @typescript-eslint/no-explicit-any -- each framework has types of its own */

/** How often each is run: a few times in the tests, `RUNS=1000` to prove it. */
const runs = Number(process.env['RUNS'] ?? 25);

/** A component that comes to the text "done" by itself, by its button "Go", or by both. */
export type Case = readonly [name: string, component: any, options?: object];

/**
 * Each case must read "done" as soon as the step that set it off has resolved: at rest is true, or the text
 * before it would be there.
 */
export function comesToRest(
  framework: string,
  isolate: (component: any, options?: any) => Promise<Subject<any, any>>,
  cases: readonly Case[],
): void {
  describe(`at rest is true (${framework}, ${runs} runs each)`, () => {
    it.each(cases)(
      '%s',
      async (_, component, options = {}) => {
        const early: string[] = [];
        for (let run = 0; run < runs; run++) {
          const subject = await isolate(component, options);
          const look = () => {
            const shown = subject.container.querySelector('output')?.textContent;
            if (shown !== 'done') early.push(`run ${run}: ${shown}`);
          };
          if (subject.has(role('button', 'Go'))) {
            for (let time = 0; time < 2; time++) {
              await subject.click(role('button', 'Go'));
              look();
            }
          } else look();
          await takeDown();
        }
        expect(early).toEqual([]);
      },
      600_000,
    );
  });
}

/** Some microtasks, one after the other. */
export async function microtasks(times: number): Promise<void> {
  for (let n = 0; n < times; n++) await Promise.resolve();
}
