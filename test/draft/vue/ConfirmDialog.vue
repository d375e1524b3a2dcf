<script setup lang="ts">
defineProps<{ isOpen: boolean; question: string }>();
defineEmits<{ answer: [yes: boolean] }>();
</script>

<template>
  <Teleport to="body">
    <div v-if="isOpen" role="dialog" aria-label="Please confirm">
      <p>{{ question }}</p>
      <button type="button" @click="$emit('answer', true)">Yes</button>
      <button type="button" @click="$emit('answer', false)">No</button>
    </div>
  </Teleport>
</template>
