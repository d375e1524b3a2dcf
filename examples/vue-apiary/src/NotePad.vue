<script setup lang="ts">
import { useTemplateRef } from 'vue';
import NoteField from './NoteField.vue';

defineProps<{ text: string }>();
defineEmits<{ write: [text: string] }>();
const field = useTemplateRef<{ write(): void }>('field');
</script>

<!-- A field for notes, and a button that leads there. -->
<template>
  <div class="pad">
    <button type="button" @click="field?.write()">Write a note</button>
    <NoteField ref="field" :text="text" @write="$emit('write', $event)" />
  </div>
</template>
