<script setup lang="ts">
defineProps<{ title: string }>();
</script>

<template>
  <section :aria-label="title">
    <h2>{{ title }}</h2>
    <slot>Nothing is in it</slot>
    <footer><slot name="footer" /></footer>
  </section>
</template>
