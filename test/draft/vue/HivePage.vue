<script setup lang="ts">
import { ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { getJson, type Hive } from './hives';

const { hiveId } = useRoute().params;
const hive = ref<Hive>();
getJson<Hive>(`/api/hives/${String(hiveId)}`).then(
  (found) => (hive.value = found),
  () => undefined,
);
</script>

<template>
  <main>
    <h1 v-if="hive">{{ hive.name }}</h1>
    <p v-else role="status">One moment</p>
    <RouterLink to="/">All hives</RouterLink>
  </main>
</template>
