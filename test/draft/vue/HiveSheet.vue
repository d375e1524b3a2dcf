<script setup lang="ts">
import { ref, watchEffect } from 'vue';
import { getJson, type Hive } from './hives';

const props = defineProps<{ hiveId: string }>();
const hive = ref<Hive>();
const problem = ref('');
watchEffect(() => {
  getJson<Hive>(`/api/hives/${props.hiveId}`).then(
    (found) => (hive.value = found),
    (error: Error) => (problem.value = error.message),
  );
});
</script>

<template>
  <p v-if="problem" role="alert">{{ problem }}</p>
  <h1 v-else-if="hive">{{ hive.name }}</h1>
  <p v-else role="progressbar" aria-label="Looking for the hive"></p>
</template>
