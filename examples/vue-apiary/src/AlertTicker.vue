<script setup lang="ts">
import { ref, watchEffect } from 'vue';
import { useAlerts } from './useAlerts';

const alerts = useAlerts();
const at = ref(0);
const isPaused = ref(false);
const go = (by: number) => {
  at.value = (at.value + by + alerts.value.length) % alerts.value.length;
};

// Whoever has moved on by hand gets four seconds to read.
watchEffect((onCleanup) => {
  const next = (at.value + 1) % alerts.value.length;
  if (isPaused.value || alerts.value.length === 0) return;
  const timer = setTimeout(() => (at.value = next), 4000);
  onCleanup(() => clearTimeout(timer));
});
</script>

<!-- One alert every four seconds, from the first again after the last. -->
<template>
  <section v-if="alerts.length > 0" class="ticker" aria-label="Alerts">
    <p aria-live="polite">{{ alerts[at]?.text }}</p>
    <button type="button" @click="go(-1)">Previous</button>
    <button type="button" :aria-pressed="isPaused" @click="isPaused = !isPaused">Pause</button>
    <button type="button" @click="go(1)">Next</button>
  </section>
</template>
