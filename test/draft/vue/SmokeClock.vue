<script setup lang="ts">
import { onUnmounted, ref } from 'vue';

const { minutes = 3 } = defineProps<{ minutes?: number }>();
const left = ref(minutes);
const timer = setInterval(() => (left.value = Math.max(0, left.value - 1)), 60_000);
onUnmounted(() => clearInterval(timer));
</script>

<template>
  <p role="timer">{{ left === 0 ? 'The smoker is out' : `${left} minutes of smoke left` }}</p>
</template>
