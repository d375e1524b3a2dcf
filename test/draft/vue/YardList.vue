<script setup lang="ts">
import { onMounted, ref } from 'vue';
import type { Hive } from './hives';

const hives = ref<Hive[]>();
const failed = ref(false);
onMounted(async () => {
  try {
    const response = await fetch('/api/hives');
    if (!response.ok) throw new Error('no');
    hives.value = await response.json();
  } catch {
    failed.value = true;
  }
});
</script>

<template>
  <p v-if="failed" role="alert">The hives could not be loaded</p>
  <p v-else-if="!hives" role="status">Loading hives</p>
  <p v-else-if="hives.length === 0">No hives in this yard yet</p>
  <ul v-else>
    <li v-for="{ id, name } in hives" :key="id">{{ name }}</li>
  </ul>
</template>
