import { once } from './shared';

/** How to end each recording, when the test ends. */
export const recordings = once('recordings', () => new Set<() => void>());

/** Hears what a source emits. */
export interface Hears {
  value(value: unknown): void;
  error(reason: unknown): void;
  end(): void;
}

/** Listens to a source. @returns how to stop; undefined where it does not know such a source */
export type Recorder = (source: object, hears: Hears, event: string | undefined) => (() => void) | undefined;

/** Adds a way to record, once however often an entry is loaded. */
export function addRecorder(recorder: Recorder): void {
  if (!recorders.some(({ name }) => name === recorder.name)) recorders.push(recorder);
}

/** What frameworks add for sources of their own (signals, refs). */
export const recorders = once<Recorder[]>('recorders', () => []);
