<script setup lang="ts">
import { ref, watchEffect } from 'vue';
import { fetchWeight, readScale, unit } from './scale';

const props = defineProps<{ hiveId: string }>();
const average = ref('Asking');
watchEffect(() => {
  fetchWeight(props.hiveId).then(
    (weight) => (average.value = `On average ${weight}`),
    (error: Error) => (average.value = error.message),
  );
});
</script>

<template>
  <p>{{ readScale(hiveId).kilograms }} {{ unit }}. {{ average }}.</p>
</template>
