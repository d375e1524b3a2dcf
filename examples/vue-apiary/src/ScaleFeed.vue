<script setup lang="ts">
import { useWeight } from './units';
import { useScale } from './useScale';

const props = defineProps<{ hiveId: string }>();
const { kilograms, live } = useScale(() => props.hiveId);
const weight = useWeight();
</script>

<!-- The weight of a hive, as its scale tells it. -->
<template>
  <p v-if="kilograms === undefined" role="status">Waiting for the scale</p>
  <p v-else class="scale">
    On the scale <strong>{{ weight(kilograms) }}</strong>
    {{ live ? 'and counting' : ', the last it told' }}
  </p>
</template>
