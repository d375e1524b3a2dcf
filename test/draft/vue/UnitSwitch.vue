<script setup lang="ts">
import { computed, ref, watch } from 'vue';

const unit = ref(localStorage.getItem('unit') ?? 'kg');
const other = computed(() => (unit.value === 'kg' ? 'lb' : 'kg'));
watch(unit, (now) => localStorage.setItem('unit', now));
</script>

<template>
  <button type="button" @click="unit = other">Show {{ other }}</button>
</template>
