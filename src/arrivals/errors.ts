import { explaining, refusing, type Explain, type Refuse } from '../core/errors/registry';
import type { Report } from '../core/errors/error';
import { count } from '../core/print';

/** Failures of scenarios that are tried in every order of arrival. */
export const registry = {
  'SIM-ARRIVAL': (f: {
    order: string;
    differences: readonly string[];
    story: readonly string[];
    failure: string;
    holds: string;
    tried: number;
    of: number;
    asked: readonly string[];
  }): Report => ({
    head: `${f.differences.length > 0 ? `${f.differences.join(', and ')}: then` : 'In one order of arrival'} the scenario fails.`,
    there: [
      ...f.story.map((words, at) => `${String(at + 1).padStart(2)}. ${words}`),
      '',
      f.failure,
      ...(f.asked.length > 0 ? ['', ...f.asked] : []),
    ],
    next: [
      `It holds where ${f.holds}.`,
      `Tried ${f.tried} of at least ${count(f.of, 'order')}. Only this one:   everyArrival(scenario, { order: '${f.order}' })`,
    ],
  }),
  'SIM-ARRIVAL-DIFFERS': (f: {
    order: string;
    at: number;
    before: readonly string[];
    now: readonly string[];
    passed: boolean;
  }): Report => ({
    head: f.passed
      ? 'The scenario fails in one run and passes in the next, with everything arriving in the same order.'
      : 'The scenario is not the same from run to run, so its orders of arrival cannot be compared.',
    there: f.passed
      ? []
      : [
          `After ${count(f.at, 'choice')} there waited in one run   ${f.before.join(', ') || 'nothing'}`,
          `and in the next   ${f.now.join(', ') || 'nothing'}`,
        ],
    next: [
      'Something outlives a run or is drawn anew: a variable of a module, a client that keeps answers, the date, a random address. Make it within the scenario.',
    ],
  }),
  'SIM-ARRIVAL-ENDLESS': (f: { order: string; within: number; waits: readonly string[] }): Report => ({
    head: `The scenario did not end within ${f.within} ms.`,
    there: f.waits.length > 0 ? [`There still waited ${f.waits.join(', ')}.`] : [],
    next: [`Only this order:   everyArrival(scenario, { order: '${f.order}' })`],
  }),
  'SIM-ARRIVAL-OVER': (f: { order: string }): Report => ({
    head: 'The test was over before all orders of arrival were tried.',
    there: [`It ended in the order "${f.order}".`],
    next: [
      'Give it more time, or try fewer:   everyArrival(scenario, { most: 50 })',
      'A scenario that ends a subject itself calls subject.takeDown(), not takeDown().',
    ],
  }),
  'SIM-ARRIVAL-LIMIT': (f: { most: number; of: number }): Report => ({
    head: `There are ${f.of} orders of arrival, and no more than ${f.most} may be tried.`,
    next: [
      'Raise "most", or take "complete" out: then the orders that find most are tried, as many as may be.',
    ],
  }),
  'SIM-ARRIVAL-UP': (f: { subjects: readonly string[] }): Report => ({
    head: `everyArrival() begins each run with a new subject, and there is one already: ${f.subjects.join(', ')}.`,
    next: ['Call isolate() within the scenario.'],
  }),
  'SIM-ARRIVAL-GIVEN': (f: { given: string; why: string }): Report => ({
    head: `everyArrival() was given ${f.given}: ${f.why}.`,
    next: ['everyArrival(async () => { const board = await isolate(HiveBoard, { … }); … })'],
  }),
};

export const explain: Explain<typeof registry> = explaining(registry);
export const refuse: Refuse<typeof registry> = refusing(registry);
