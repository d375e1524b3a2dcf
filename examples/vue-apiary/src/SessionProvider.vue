<script setup lang="ts">
import { provide, ref } from 'vue';
import { SessionKey } from './session';

const keeper = ref<string | null>(null);
provide(SessionKey, {
  keeper,
  signIn: (name) => (keeper.value = name),
  signOut: () => (keeper.value = null),
});
</script>

<template>
  <slot />
</template>
