<script setup lang="ts">
import { defineAsyncComponent } from 'vue';

const Frame = defineAsyncComponent(() => import('./Frame.vue'));
</script>

<template>
  <Frame title="Notes">Keep the entrance clear</Frame>
</template>
