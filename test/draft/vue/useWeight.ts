import { onUnmounted, readonly, ref, type Ref } from 'vue';
import { listen } from './scales';

export function useWeight(): Readonly<Ref<number>> {
  const kilograms = ref(0);
  onUnmounted(listen((told) => (kilograms.value = told)));
  return readonly(kilograms);
}
