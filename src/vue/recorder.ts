import * as Vue from 'vue';
import type { Recorder } from '../core/recordings';

/** Records refs and reactive objects, each change as it is made. */
export const recordRef: Recorder = (source, { value }) => {
  if (!Vue.isRef(source) && !Vue.isReactive(source)) return undefined;
  return Vue.watch(source, (now: unknown) => value(now), { flush: 'sync', immediate: true });
};
