<script setup lang="ts">
withDefaults(defineProps<{ colour: 'white' | 'yellow' | 'red'; marked?: boolean }>(), { marked: false });
</script>

<template>
  <p role="status">{{ colour === 'white' ? 'A queen of this year' : `A queen marked ${colour}` }}</p>
  <strong v-if="marked">Marked by hand</strong>
</template>
