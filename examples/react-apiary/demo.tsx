import { fail, hold, part, role, text, type Locator, type Subject } from 'simulacra';
import { isolateWith } from 'simulacra/react';
import type { DemoState } from '../../src/cli/demo';
import { hives } from '../shared/hive';
import { HiveBoard } from './src/HiveBoard';
import { HiveCard } from './src/HiveCard';

const isolate = isolateWith({ stub: [HiveCard] });

interface Scene {
  readonly name: string;
  readonly answer: unknown;
  readonly code: string;
  readonly expected: string;
  readonly locator: Locator;
  readonly times?: number;
}

const scenes: Scene[] = [
  {
    name: 'loading',
    answer: hold(),
    code: 'hold()',
    expected: 'status "Loading hives"',
    locator: role('status', 'Loading hives'),
  },
  {
    name: 'failed',
    answer: fail(503),
    code: 'fail(503)',
    expected: 'button "Try again"',
    locator: role('button', 'Try again'),
  },
  {
    name: 'empty',
    answer: [],
    code: '[]',
    expected: 'text "No hives in this yard yet"',
    locator: text('No hives in this yard yet'),
  },
  {
    name: 'loaded',
    answer: hives,
    code: 'hives',
    expected: '3 × part HiveCard',
    locator: part(HiveCard),
    times: 3,
  },
];

/** The four states of a board of hives, each played by a test as a user would write it. */
export const states: DemoState[] = scenes.map(({ name, answer, code, expected, locator, times }) => ({
  name,
  expected,
  code: `const isolate = isolateWith({ stub: [HiveCard] });\nawait isolate(HiveBoard, {\n  props: { yard: 'north' },\n  network: { 'GET /api/hives?yard=north': ${code} },\n})`,
  async play() {
    const start = performance.now();
    const board: Subject<{ yard: string }> = await isolate(HiveBoard, {
      props: { yard: 'north' },
      network: { 'GET /api/hives?yard=north': answer as object },
    });
    const found = board.findAll(locator).length;
    const milliseconds = performance.now() - start;
    const outline = board.outline();
    await board.takeDown();
    return {
      outline,
      chronicle: board.chronicle,
      shown: times === undefined ? found > 0 : found === times,
      milliseconds,
    };
  },
}));
