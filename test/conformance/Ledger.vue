<script setup lang="ts">
import { computed } from 'vue';
import { Weight } from './vue';

const { kilograms = 0 } = defineProps<{ kilograms?: number; crowded?: boolean }>();
const note = defineModel<string>('note', { default: '' });
const emit = defineEmits<{ weighed: [kilograms: number, at: string] }>();
const vShout = (element: HTMLElement) => element.setAttribute('title', 'shouted');
const half = computed(() => kilograms / 2);
</script>

<template>
  <section :class="$style.ledger">
    <slot name="head" :half="half">no head</slot>
    <Weight v-shout :kilograms="kilograms" />
    <p v-if="crowded">crowded</p>
    <label>Note <input v-model="note" v-shout /></label>
    <button @click="emit('weighed', kilograms, 'noon')">Weigh</button>
    <slot />
  </section>
</template>

<style module>
.ledger {
  color: red;
}
</style>
