<script setup lang="ts">
import { provide } from 'vue';
import type { Inspections } from '../../shared/inspection';
import { InspectionsKey } from './inspections';

const props = defineProps<{ at: Inspections }>();
provide(InspectionsKey, { log: (inspection) => props.at.log(inspection) });
</script>

<!-- Has the components inside of it keep their inspections elsewhere. -->
<template>
  <slot />
</template>
