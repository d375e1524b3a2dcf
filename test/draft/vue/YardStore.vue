<script setup lang="ts">
import { onMounted } from 'vue';
import { useYard } from './yard';

const yard = useYard();
onMounted(() => yard.load());
</script>

<template>
  <p v-if="yard.isLoading" role="status">Fetching the yard</p>
  <p v-else-if="yard.problem" role="alert">{{ yard.problem }}</p>
  <ol v-else aria-label="Yard">
    <li v-for="hive in yard.hives" :key="hive.id">{{ hive.name }}</li>
  </ol>
</template>
