import { isSignal } from '@angular/core';
import { createWatch } from '@angular/core/primitives/signals';
import type { Recorder } from '../core/recordings';

/** Records signals. Changes that are made one right after the other count as one, as in an effect. */
export const recordSignal: Recorder = (source, { value }) => {
  if (!isSignal(source)) return undefined;
  let isOver = false;
  const watch = createWatch(
    () => value(source()),
    (due) => queueMicrotask(() => isOver || due.run()),
    true,
  );
  watch.run();
  return () => {
    isOver = true;
    watch.destroy();
  };
};
