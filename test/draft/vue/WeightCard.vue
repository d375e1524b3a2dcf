<script setup lang="ts">
import type { Hive } from './hives';

const { hive } = defineProps<{ hive: Hive }>();
defineEmits<{ open: [id: string] }>();
</script>

<template>
  <article>
    <h3>{{ hive.name }}</h3>
    <p>{{ hive.kilograms.toFixed(1) }} kg</p>
    <button type="button" @click="$emit('open', hive.id)">Open {{ hive.name }}</button>
  </article>
</template>
