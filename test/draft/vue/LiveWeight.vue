<script setup lang="ts">
import { useWeight } from './useWeight';

const kilograms = useWeight();
</script>

<template>
  <output aria-label="Weight">{{ kilograms }} kg</output>
</template>
