<script setup lang="ts">
import { useTemplateRef } from 'vue';

defineProps<{ note: string }>();
defineEmits<{ write: [note: string] }>();
const area = useTemplateRef<HTMLTextAreaElement>('area');
defineExpose({ focus: () => area.value?.focus() });
</script>

<template>
  <textarea
    ref="area"
    aria-label="Note"
    :value="note"
    @input="$emit('write', ($event.target as HTMLTextAreaElement).value)"
  />
</template>
