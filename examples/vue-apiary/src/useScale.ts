import { computed, shallowRef, toValue, watchEffect, type MaybeRefOrGetter, type Ref } from 'vue';
import { listenToScale } from '../../shared/scales';

export interface Scale {
  /** The last weight it told; undefined before the first. */
  kilograms: Readonly<Ref<number | undefined>>;
  live: Readonly<Ref<boolean>>;
}

/** What the scale under a hive tells, as it tells it. */
export function useScale(hiveId: MaybeRefOrGetter<string>): Scale {
  const kilograms = shallowRef<number>();
  watchEffect((onCleanup) => {
    kilograms.value = undefined;
    onCleanup(listenToScale(toValue(hiveId), (told) => (kilograms.value = told)));
  });
  return { kilograms, live: computed(() => kilograms.value !== undefined) };
}
