<script setup lang="ts">
import { useTemplateRef } from 'vue';

defineProps<{ text: string }>();
defineEmits<{ write: [text: string] }>();
const area = useTemplateRef<HTMLTextAreaElement>('area');
defineExpose({ write: () => area.value?.focus() });
</script>

<template>
  <label class="note">
    Note
    <textarea
      ref="area"
      :value="text"
      @input="$emit('write', ($event.target as HTMLTextAreaElement).value)"
    />
  </label>
</template>
