<script setup lang="ts">
defineProps<{ keeper: string }>();
const day = new Date().toLocaleDateString('en', { weekday: 'long', timeZone: 'UTC' });
</script>

<template>
  <h2>Good day, {{ keeper }}: it is {{ day }}</h2>
</template>
