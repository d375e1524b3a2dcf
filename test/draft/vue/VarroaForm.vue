<script setup lang="ts">
import { ref } from 'vue';

const varroa = defineModel<string>('varroa', { required: true });
const saved = ref(false);
const emit = defineEmits<{ log: [varroa: number] }>();
const log = () => {
  emit('log', Number(varroa.value));
  saved.value = true;
};
</script>

<template>
  <form aria-label="Inspection" @submit.prevent="log">
    <label>Varroa per 100 bees <input v-model="varroa" /></label>
    <button>Log</button>
    <p v-if="saved" role="status">Logged</p>
  </form>
</template>
