<script setup lang="ts">
import { inject } from 'vue';

const unit = inject('unit', 'kg');
</script>

<template>
  <p>Weights are in {{ unit }}</p>
</template>
