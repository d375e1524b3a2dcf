<script setup lang="ts">
import type { Hive } from './hives';

defineProps<{ hives: Hive[] }>();
</script>

<template>
  <ul aria-label="Hives">
    <li v-for="hive in hives" :key="hive.id">
      <slot name="row" :hive="hive">{{ hive.name }} weighs {{ hive.kilograms }} kg</slot>
    </li>
  </ul>
</template>
